import { Client } from 'pg';
import { takeOwnership, type Ownership } from '../../src/store/owner';

// One server a database: the second is told whose it is, and a killed one holds nothing.

const ADMIN = process.env['E2E_DATABASE_URL'] ?? '';
const NAME = `owner_${process.pid}`;
const URL_OF = ADMIN.replace(/\/ipsonomo$/, `/${NAME}`);
const admin = new Client({ connectionString: ADMIN });
const never = () => {
  throw new Error('lost');
};

beforeAll(async () => {
  await admin.connect();
  await admin.query(`create database ${NAME}`);
});
afterAll(async () => {
  await admin.query(`drop database if exists ${NAME} with (force)`);
  await admin.end();
});

const owned = (folder: string) => takeOwnership(URL_OF, folder, never);
const isOurs = (one: object): one is Ownership => 'release' in one;

test('the second is told who has it; released, it is free', async () => {
  const first = await owned('/var/lib/one');
  const second = await owned('/var/lib/two');
  expect(second).toEqual({
    owner: expect.stringMatching(/^ipsonomo \d+ on .*, \/var\/lib\/one$/) as string,
  });
  if (!isOurs(first)) throw new Error('not taken');
  await first.release();
  const third = await owned('/var/lib/two');
  expect(isOurs(third)).toBe(true);
  if (isOurs(third)) await third.release();
});

test('a lock that went with its connection is taken again', async () => {
  const first = await owned('/var/lib/one');
  const held = `select pid from pg_locks join pg_stat_activity using (pid)
    where locktype = 'advisory' and datname = '${NAME}'`;
  const before = (await admin.query<{ pid: number }>(held)).rows[0]?.pid;
  await admin.query('select pg_terminate_backend($1)', [before]);
  let after: number | undefined;
  while (after === undefined || after === before) {
    await new Promise((resolve) => setTimeout(resolve, 50));
    after = (await admin.query<{ pid: number }>(held)).rows[0]?.pid;
  }
  expect((await owned('/var/lib/two')) as object).toHaveProperty('owner');
  if (isOurs(first)) await first.release();
});
