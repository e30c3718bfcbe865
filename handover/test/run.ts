import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export const folder = (): string => mkdtempSync(join(tmpdir(), 'ipsonomo-'));

export function inFile(content: string | Uint8Array, name = 'file'): string {
  const path = join(folder(), name);
  writeFileSync(path, content);
  return path;
}

/** A program of Debian's, run to its end. @param path of the file it is given */
export function run(command: string, ...args: readonly string[]) {
  const { status, stdout, stderr } = spawnSync(command, args, {
    encoding: 'utf8',
    env: {
      ...process.env,
      PATH: `${process.env['PATH']}:/usr/sbin:/sbin`,
      // Where Kea would write what only one of it may have.
      ...{ KEA_LOCKFILE_DIR: tmpdir(), KEA_PIDFILE_DIR: tmpdir() },
    },
  });
  return { status, out: `${stdout}${stderr}` };
}
