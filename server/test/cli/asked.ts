import type { Output } from '../../src/cli/output';

/** Runs a command. @returns what it printed and told, and whether it was content */
export async function asked(run: (output: Output) => boolean | Promise<boolean>) {
  const printed: unknown[] = [];
  const told: string[] = [];
  const isGood = await run({
    print: (line) => void printed.push(line),
    tell: (sentence) => void told.push(sentence),
  });
  return { isGood, printed, told };
}
