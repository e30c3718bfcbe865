import { run } from './run';

/** Tests with programs that a machine may lack: they are there wherever everything is tested. */
export const withProgram = (command: string, ...args: readonly string[]) =>
  process.env['CI'] || run(command, ...args).status !== null ? test : test.skip;
