import { spawn } from 'node:child_process';
import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { migrate, openDatabase } from '../../src/store/database';
import { Store } from '../../src/store/store';
import { takeOwnership } from '../../src/store/owner';
import { seedDemo } from '../../src/demo';

// What is backed up is what stands there again afterwards, and nothing is restored that is not what was written.

const ROOT = join(__dirname, '../../..');
const NAME = `t_backup_${process.pid}`;
const data = mkdtempSync(join(tmpdir(), 'ipsonomo-backup-'));
const admin = process.env['E2E_DATABASE_URL'] ?? '';
const url = admin.replace(/\/ipsonomo$/, `/${NAME}`);

async function sql(text: string, at = url): Promise<readonly unknown[]> {
  const client = new Client({ connectionString: at });
  await client.connect();
  try {
    return (await client.query(text)).rows as readonly unknown[];
  } finally {
    await client.end();
  }
}

const run = (script: string, ...args: readonly string[]) =>
  new Promise<{ readonly code: number | null; readonly told: string }>((resolve) => {
    const child = spawn(process.execPath, [join(ROOT, 'scripts', script), ...args], {
      env: { ...process.env, DATABASE_URL: url, IPSONOMO_DATA: data, INIT_CWD: data },
    });
    let told = '';
    for (const out of [child.stdout, child.stderr])
      out.on('data', (part: Buffer) => (told += part.toString()));
    child.once('exit', (code) => resolve({ code, told }));
  });

beforeAll(async () => {
  await sql(`create database ${NAME}`, admin);
  const database = openDatabase({ url });
  await migrate(database);
  await seedDemo(new Store(database));
  await database.destroy();
  mkdirSync(join(data, 'captures'));
  writeFileSync(join(data, 'captures', 'run.pcap'), 'frames');
  writeFileSync(join(data, 'captures', 'installation.key.pem'), 'key');
  mkdirSync(join(data, 'captures', 'packages'));
  writeFileSync(join(data, 'captures', 'packages', 'a'), 'on its way out');
});
afterAll(() => sql(`drop database ${NAME} with (force)`, admin));

test('backed up, spoiled, restored: the same; a wrong one, a used database and a running server are refused', async () => {
  const made = await run('backup.mjs', 'first');
  expect(made).toMatchObject({ code: 0 });
  expect(made.told).toContain('every table is the same');
  expect(readdirSync(join(data, 'first', 'captures')).sort()).toEqual([
    ...['installation.key.pem', 'run.pcap'],
  ]);
  const before = await sql('select * from thing order by job_id, type, id');
  expect(before.length).toBeGreaterThan(50);

  await sql("delete from thing where type = 'device'");
  writeFileSync(join(data, 'captures', 'run.pcap'), 'other frames');
  expect((await run('restore.mjs', 'first')).told).toContain('There are jobs in this database');
  const owned = await takeOwnership({
    ...{ url, server: 'one', folder: '/elsewhere' },
    lost: () => undefined,
  });
  expect((await run('restore.mjs', 'first', '--replace')).told).toMatch(
    /A server works with this database: ipsonomo \d+ on .*elsewhere/,
  );
  if ('release' in owned) await owned.release();
  const restored = await run('restore.mjs', 'first', '--replace');
  expect([restored.code, restored.told]).toEqual([0, expect.stringContaining('are restored')]);
  expect(await sql('select * from thing order by job_id, type, id')).toEqual(before);
  expect(readFileSync(join(data, 'captures', 'run.pcap'), 'utf8')).toBe('frames');

  expect((await run('backup.mjs', 'first')).told).toContain('is there already');
  appendFileSync(join(data, 'first', 'database.dump'), 'x');
  expect((await run('restore.mjs', 'first', '--replace')).told).toContain(
    'is not what was written',
  );
  expect((await run('restore.mjs', 'none')).told).toContain('is no backup');
}, 120_000);
