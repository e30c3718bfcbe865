import { execFile } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { SERVER_WORDS } from '@ipsonomo/language/terminal';

const LONGEST = 600_000;

/**
 * Writes a database into a file with PostgreSQL's own pg_dump, which reads it as of one moment.
 * @returns why it went wrong, undefined where it went well
 */
export function dumpDatabase(url: string, file: string): Promise<string | undefined> {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const args = ['--format=custom', '--no-owner', '--no-privileges', `--file=${file}`, url];
  return new Promise((resolve) => {
    // The program takes it over as it starts; nobody else is to have it.
    const before = process.umask(0o077);
    execFile('pg_dump', args, { timeout: LONGEST }, (error, _out, told) => {
      if (!error) return resolve(undefined);
      const isMissing = 'code' in error && error.code === 'ENOENT';
      const first = told.trim().split('\n')[0] || error.message.split('\n')[0];
      resolve(isMissing ? SERVER_WORDS.noDumpProgram : (first ?? ''));
    });
    process.umask(before);
  });
}
