import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/** Keeps why the server is about to end, for the one that is started after it. Nothing here may throw. */
export function noteFall(file: string, why: string): void {
  try {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, why, { mode: 0o600 });
  } catch {
    // Without a disk the log alone tells it.
  }
}

/** Why the server before this one ended, told once; undefined where it ended in order. */
export function takeFall(file: string): string | undefined {
  try {
    const why = readFileSync(file, 'utf8');
    rmSync(file);
    return why.split('\n')[0]?.slice(0, 200);
  } catch {
    return undefined;
  }
}
