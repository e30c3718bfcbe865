import { Client } from 'pg';
import { takeOwnership, type OwnedBy, type Ownership } from '../../src/store/owner';

// A server runs once, and beside others; tables are changed by who is alone; a killed one holds nothing.

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

const owned = (server: string, folder: string, lost: (by: OwnedBy) => void = never) =>
  takeOwnership({ url: URL_OF, server, folder, lost });
const isOurs = (one: object): one is Ownership => 'release' in one;

/** Everybody's part, which has to be one's own. */
async function ours(server: string, folder: string): Promise<Ownership> {
  const one = await owned(server, folder);
  if (!isOurs(one)) throw new Error(`not taken: ${one.owner}`);
  return one;
}

test('several servers work with a database, each once; released, it may be run again', async () => {
  const first = await ours('one', '/var/lib/one');
  const second = await ours('two', '/var/lib/two');
  expect(await owned('one', '/var/lib/copy')).toEqual({
    owner: expect.stringMatching(/^ipsonomo \d+ on .*, \/var\/lib\/one$/) as string,
    why: 'runs-already',
  });
  await first.release();
  const third = await ours('one', '/var/lib/copy');
  await Promise.all([second, third].map((one) => one.release()));
});

test('who changes the tables does so alone: others are told, before and meanwhile', async () => {
  const [first, second] = [
    await ours('one', '/var/lib/one'),
    await ours('two', '/var/lib/two'),
  ] as const;
  expect(await first.alone()).toMatchObject({
    owner: expect.stringContaining('/var/lib/two') as string,
    why: 'in-use',
  });
  await second.release();
  expect(await first.alone()).toBeUndefined();
  expect(await owned('two', '/var/lib/two')).toMatchObject({
    owner: expect.stringContaining('/var/lib/one') as string,
    why: 'being-changed',
  });
  await first.share();
  const again = await ours('two', '/var/lib/two');
  await Promise.all([first, again].map((one) => one.release()));
});

test('a lock that went with its connection is taken again, and lost where it runs elsewhere by then', async () => {
  let lostTo: OwnedBy | undefined;
  const first = await owned('one', '/var/lib/one', (by) => (lostTo = by));
  const held = `select distinct pid from pg_locks join pg_stat_activity using (pid)
    where locktype = 'advisory' and datname = '${NAME}'`;
  const pidNow = async () => (await admin.query<{ pid: number }>(held)).rows[0]?.pid;
  const before = await pidNow();
  await admin.query('select pg_terminate_backend($1)', [before]);
  let after: number | undefined;
  while (after === undefined || after === before) {
    await new Promise((resolve) => setTimeout(resolve, 50));
    after = await pidNow();
  }
  expect((await owned('one', '/var/lib/two')) as object).toHaveProperty('owner');
  await admin.query('select pg_terminate_backend($1)', [after]);
  const other = await ours('one', '/var/lib/two');
  while (lostTo === undefined) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(lostTo).toMatchObject({ why: 'runs-already' });
  if (isOurs(first)) await first.release();
  await other.release();
});
