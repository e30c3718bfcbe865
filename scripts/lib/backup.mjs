// Backups: the database as of one moment with a digest of every table, and the captures with a digest of each.
import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join, relative } from 'node:path';
import pg from 'pg';
import { giveUp, run } from './steps.mjs';

const FORMAT = 'ipsonomo-backup';
const DUMP = 'database.dump';
const MANIFEST = 'manifest.json';
/** What a server holds while it works with a database (server/src/store/owner.ts). */
const OWNER_KEY = 0x4950_534f;

async function connected(url, act) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await act(client);
  } finally {
    await client.end();
  }
}

/** Every table with its number of rows and a digest of all that stands in them, in no order of theirs. */
async function digestsOf(client) {
  const { rows } = await client.query(
    "select tablename as name from pg_tables where schemaname = 'public' order by 1",
  );
  const digests = {};
  for (const { name } of rows) {
    const { rows: found } = await client.query(
      `select count(*)::int as rows, coalesce(md5(string_agg(line, '' order by line)), '') as digest
       from (select md5(one::text) as line from ${pg.escapeIdentifier(name)} one) as lines`,
    );
    digests[name] = found[0];
  }
  return digests;
}

function* filesUnder(folder) {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(path);
    else if (entry.isFile()) yield path;
  }
}

const digestOfFile = (path) => createHash('sha256').update(readFileSync(path)).digest('hex');

const filesOf = (folder) =>
  Object.fromEntries(
    [...filesUnder(folder)].map((path) => [relative(folder, path), digestOfFile(path)]),
  );

/**
 * Writes a backup into a folder that is not there yet.
 * @param from { url, captures }
 * @returns what it holds, in words
 */
export async function backUp({ url, captures }, folder) {
  if (existsSync(folder)) giveUp(`${folder} is there already. Name another folder.`);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const at = new Date().toISOString();
  const tables = await connected(url, async (client) => {
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query('select pg_export_snapshot() as id');
    const all = await digestsOf(client);
    run(
      'pg_dump',
      [
        ...['--format=custom', '--no-owner', '--no-privileges', `--snapshot=${rows[0].id}`],
        ...[`--file=${join(folder, DUMP)}`, url],
      ],
      { title: 'pg_dump' },
    );
    await client.query('commit');
    return all;
  });
  // A run that goes on still writes into its files: what is copied is what counts.
  // What is on its way out is made of the rest, and gone by then.
  const stays = (path) => path !== join(captures, 'packages');
  if (existsSync(captures))
    cpSync(captures, join(folder, 'captures'), { recursive: true, filter: stays });
  const manifest = {
    ...{ format: FORMAT, version: 1, at, tables },
    dump: digestOfFile(join(folder, DUMP)),
    captures: filesOf(join(folder, 'captures')),
  };
  writeFileSync(join(folder, MANIFEST), JSON.stringify(manifest, undefined, 1), { mode: 0o600 });
  return manifest;
}

/** Reads a backup's manifest, and whether every file is what it was. Ends with a sentence where not. */
export function checkedManifest(folder) {
  let manifest;
  try {
    manifest = JSON.parse(readFileSync(join(folder, MANIFEST), 'utf8'));
  } catch (error) {
    return giveUp(`${folder} is no backup: ${error.message}`);
  }
  if (manifest.format !== FORMAT || manifest.version !== 1)
    giveUp(`${folder} is no backup that this version reads.`);
  if (digestOfFile(join(folder, DUMP)) !== manifest.dump)
    giveUp(`${join(folder, DUMP)} is not what was written: do not restore it.`);
  const files = filesOf(join(folder, 'captures'));
  for (const [name, digest] of Object.entries(manifest.captures))
    if (files[name] !== digest) giveUp(`${name} of the captures is not what was written, or gone.`);
  return manifest;
}

/** Restores a dump into an empty database. @returns the tables that are not what was backed up */
export async function restoreInto(url, folder, manifest) {
  run(
    'pg_restore',
    ['--no-owner', '--no-privileges', '--exit-on-error', `--dbname=${url}`, join(folder, DUMP)],
    { title: 'pg_restore' },
  );
  const found = await connected(url, digestsOf);
  const names = new Set([...Object.keys(manifest.tables), ...Object.keys(found)]);
  return [...names].filter(
    (name) =>
      manifest.tables[name]?.digest !== found[name]?.digest ||
      manifest.tables[name]?.rows !== found[name]?.rows,
  );
}

/** Proves a backup by restoring it into a database beside the others, which then goes. */
export async function proveBackup(adminUrl, folder, manifest) {
  const name = `ipsonomo_proof_${process.pid}`;
  const url = new URL(adminUrl);
  url.pathname = `/${name}`;
  await connected(adminUrl, (client) => client.query(`create database ${name}`));
  try {
    return await restoreInto(url.href, folder, manifest);
  } finally {
    await connected(adminUrl, (client) => client.query(`drop database ${name} with (force)`));
  }
}

/** Whose database this is just now; undefined where no server works with it. */
export const serverAt = (url) =>
  connected(url, async (client) => {
    const { rows } = await client.query(
      `select application_name as name from pg_locks join pg_stat_activity using (pid)
       where locktype = 'advisory' and objid = $1 and granted
         and database = (select oid from pg_database where datname = current_database())`,
      [OWNER_KEY],
    );
    return rows[0]?.name;
  });

export const rowsIn = (manifest) =>
  Object.values(manifest.tables).reduce((sum, { rows }) => sum + rows, 0);

/** Empties a database, whatever is in it. */
export const empty = (url) =>
  connected(url, (client) => client.query('drop schema public cascade; create schema public'));

/** Whether there is anything in it that would be lost. */
export const isUsed = (url) =>
  connected(url, async (client) => {
    const digests = await digestsOf(client);
    return Object.entries(digests).some(([name, { rows }]) => name === 'job' && rows > 0);
  });

/** Puts the captures of a backup in the place of those that are there, which are kept beside them. */
export function restoreCaptures(folder, captures) {
  const from = join(folder, 'captures');
  if (existsSync(captures) && statSync(captures).isDirectory())
    renameSync(captures, `${captures}-before-${Date.now()}`);
  if (existsSync(from)) cpSync(from, captures, { recursive: true });
}
