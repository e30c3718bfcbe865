// Whose database a script works with: the one that is named, else the demo's own.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startPostgres } from './postgres.mjs';
import { LOCAL, ROOT } from './steps.mjs';

/** Settings of `npm start`, where the environment does not say otherwise. */
export function readSettings() {
  const file = join(ROOT, '.env');
  if (!existsSync(file)) return;
  for (const line of readFileSync(file, 'utf8').split('\n')) {
    const found = /^([A-Z_]+)=(.*)$/.exec(line.trim());
    if (found) process.env[found[1]] ??= found[2];
  }
}

/** @returns { url: of the tables' owner, adminUrl: who may make databases, captures, stop } */
export async function ownDatabase() {
  readSettings();
  const captures = join(process.env.IPSONOMO_DATA ?? LOCAL, 'captures');
  const url = process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL;
  if (url) return { url, adminUrl: url, captures, stop: () => undefined };
  const { ownerUrl, socketUrl, stop } = await startPostgres('pg');
  return { url: ownerUrl, adminUrl: socketUrl, captures, stop };
}
