import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { NewsLink, type News } from '../../src/store/news-link';
import { Scratch } from '../scratch';

// What one server writes the other hears: in its order, each once, also where a smaller number is committed later, and
// after a gap in the connection.

let scratch: Scratch;
let listener: string;
let heard: News[];
let reached: boolean[];
let link: NewsLink;
beforeAll(async () => {
  scratch = await Scratch.open('news');
});
afterAll(() => scratch.close());
beforeEach(async () => {
  [heard, reached, listener] = [[], [], randomUUID()];
  link = await NewsLink.open({ ...scratch.database, server: listener });
});
afterEach(() => link.close());

const begin = (taken: (news: readonly News[]) => Promise<void> = take) =>
  link.begin({
    taken,
    missed: () => Promise.reject(new Error('nothing was missed')),
    reached: (isThere) => void reached.push(isThere),
  });
const take = (news: readonly News[]): Promise<void> => {
  heard.push(...news);
  return Promise.resolve();
};

async function until(what: string, holds: () => boolean): Promise<void> {
  const end = Date.now() + 20_000;
  while (!holds()) {
    if (Date.now() > end) throw new Error(`${what}: ${JSON.stringify(heard)}`);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
}

/** Ends the connection that listens, as a cable that is pulled would in the end. */
const cutLink = () =>
  scratch.knex.raw(
    'select pg_terminate_backend(pid) from pg_stat_activity where application_name = ?',
    [`ipsonomo news ${listener}`],
  );

/** A word that only this test knows. @param by the server that says it; null says nobody does */
const say = (word: number, by: string | null = scratch.server) =>
  scratch.knex('news').insert({ kind: 'silenced', body: { of: word }, server_id: by });
const words = () => heard.map(({ body }) => body['of']);

test('what others write is told, what it wrote itself is not, and what no server wrote is', async () => {
  begin();
  await until('there', () => reached.length > 0);
  await say(1);
  await say(2, listener);
  await say(3, null);
  await until('told', () => heard.length >= 2);
  expect(words()).toEqual([1, 3]);
  expect(reached).toEqual([true]);
});

test('what was written between its beginning and its first reading is told', async () => {
  await say(4);
  begin();
  await until('told', () => heard.length > 0);
  expect(words()).toEqual([4]);
});

test('a smaller number that is committed later is told, and nothing twice', async () => {
  begin();
  const late = await scratch.knex.transaction();
  await late('news').insert({ kind: 'silenced', body: { of: 'late' } });
  await say(5);
  await until('the first', () => heard.length === 1);
  await late.commit();
  await say(6);
  await until('the others', () => heard.length >= 3);
  expect(words()).toEqual([5, 'late', 6]);
});

test('after a gap it goes on where it stood, and says that it was away', async () => {
  begin();
  await until('there', () => reached.length > 0);
  await say(7);
  await until('before', () => heard.length === 1);
  await cutLink();
  for (let word = 8; word < 40; word += 1) await say(word);
  await until('after', () => heard.length >= 33);
  expect(words()).toEqual(Array.from({ length: 33 }, (_, at) => at + 7));
  expect(reached.slice(0, 3)).toEqual([true, false, true]);
});

test('where taking it fails, it is told once more', async () => {
  let failures = 0;
  begin((news) => {
    if (failures === 0 && news.length > 0) {
      failures += 1;
      return Promise.reject(new Error('not now'));
    }
    return take(news);
  });
  await say(41);
  await until('told', () => heard.length > 0);
  expect([words(), failures]).toEqual([[41], 1]);
});

test('two hundred at once through forty connections: each once', async () => {
  begin();
  const clients = await Promise.all(
    Array.from({ length: 40 }, async () => {
      const client = new Client({ connectionString: scratch.database.url });
      await client.connect();
      await client.query(`set search_path to ${scratch.database.schema ?? ''}`);
      return client;
    }),
  );
  const insert = `insert into news (kind, body) values ('silenced', jsonb_build_object('of', $1::int))`;
  await Promise.all(
    clients.map(async (client, at) => {
      for (let turn = 0; turn < 5; turn += 1) await client.query(insert, [1000 + at * 5 + turn]);
      await client.end();
    }),
  );
  await until('all', () => heard.length >= 200);
  expect(words().sort()).toEqual(Array.from({ length: 200 }, (_, at) => 1000 + at));
});

test('each kind of change tells of itself, by whatever it was made', async () => {
  begin();
  const { store, knex } = scratch;
  const job = await store.addJob('News');
  const change = { jobId: job.id, person: 'Mara Quist', what: 'added' };
  const interfaceId = randomUUID();
  const thing = { id: 'r2', name: 'Other', note: '' };
  const edits = [{ op: 'add' as const, type: 'realm' as const, thing }];
  await store.change(change, () => ({ edits, result: undefined }));
  await store.evidence.append([
    {
      ...{ jobId: job.id, interfaceId, kind: 'bound', at: Date.now(), facts: { label: 'a' } },
      ...{ source: 'desk', person: 'Mara Quist', runId: undefined, sequence: undefined },
      ...{ mac: undefined, address: undefined, bytes: undefined },
    },
  ]);
  await store.renameJob(job.id, 'Other news');
  await store.takenCalls.take({
    ...{ jobId: job.id, interfaceId, taker: { person: 'Mara Quist', account: undefined } },
    ...{ now: new Date(), until: new Date(Date.now() + 60_000), word: undefined },
  });
  await knex('account').insert({ kind: 'person', name: 'Ova', role: 'look', made_by: 'test' });
  await store.servers.begin(scratch.server, 'Hall 1');
  await store.servers.seen(scratch.server);
  await store.servers.silence('Mara Quist');
  await until('silence', () => heard.some(({ kind }) => kind === 'silence'));
  const told = heard.map(({ kind, body, jobId }) => [kind, body, jobId === job.id] as const);
  // Insert or update counts as both.
  expect(told.filter(([kind], at) => kind !== 'servers' || told[at - 1]?.[0] !== kind)).toEqual([
    ['job', {}, true],
    ['revision', { number: 1 }, true],
    ['evidence', {}, true],
    ['job', {}, true],
    ['job', {}, true],
    ['people', {}, false],
    ['servers', {}, false],
    ['silence', { by: 'Mara Quist' }, false],
  ]);
});
