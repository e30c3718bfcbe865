import 'fake-indexeddb/auto';
import {
  Outbox,
  type OutboxParts,
  type OutboxStore,
  type Sent,
  type WaitingAct,
} from '../../src/data/outbox';
import { outboxStore } from '../../src/data/outbox-store';

// R-WAIT: acts that wait, in the browser's own database (Indexed Database API, as fake-indexeddb has it): nothing of them is lost
// and nothing is done twice, whenever the page is closed and whatever becomes of what was sent.

/** A server that does each number once, and whose answers may be lost. */
class FakeServer {
  readonly done = new Map<string, unknown>();
  readonly order: string[] = [];
  isAway = false;

  take({ id, body }: WaitingAct): void {
    if (this.done.has(id)) return;
    this.done.set(id, body);
    this.order.push(id);
  }
}

const never = new Promise<never>(() => undefined);

/** Small, seeded and good enough to choose what goes wrong (xorshift32). */
function randomOf(seed: number): () => number {
  let state = seed | 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
}

/** A page with an outbox, until it is closed: then nothing of it goes on. */
function pageOf(server: FakeServer, random: () => number = () => 1) {
  let isOpen = true;
  const whileOpen =
    <Asked extends readonly unknown[], T>(work: (...asked: Asked) => Promise<T>) =>
    async (...asked: Asked): Promise<T> => {
      if (!isOpen) return never;
      const answer = await work(...asked);
      return isOpen ? answer : never;
    };
  const kept = outboxStore();
  const store: OutboxStore = {
    all: whileOpen(kept.all),
    add: whileOpen(kept.add),
    change: whileOpen(kept.change),
    remove: whileOpen(kept.remove),
  };
  const send = whileOpen(async (act: WaitingAct): Promise<Sent> => {
    await new Promise((resolve) => setTimeout(resolve, 0));
    if (server.isAway || random() < 0.2) return { kind: 'away' };
    server.take(act);
    // It was done, and nobody here comes to know.
    return random() < 0.2 ? { kind: 'away' } : { kind: 'done', answer: act.body };
  });
  let chain: Promise<unknown> = Promise.resolve();
  const inTurn: OutboxParts['inTurn'] = (_job, work) => {
    const turn = chain.then(work);
    chain = turn.catch(() => undefined);
    return turn;
  };
  const outbox = new Outbox({
    store,
    send,
    inTurn,
    changed: () => undefined,
    done: () => undefined,
  });
  return { outbox, close: () => (isOpen = false) };
}

let count = 0;
const act = (more: Partial<WaitingAct> = {}): Omit<WaitingAct, 'place'> => ({
  ...{ id: `act-${(count += 1)}`, act: 'sayKept', params: { job: 'job-1', interface: 'if-1' } },
  ...{ body: { count }, edits: [], doneAt: 1000 + count, person: 'Mara Quist' },
  ...{ account: undefined, refused: null },
  ...more,
});

const soon = () => new Promise((resolve) => setTimeout(resolve, 5));

beforeEach(async () => {
  const { all, remove } = outboxStore();
  for (const { place } of await all()) await remove(place);
});

test('with a server it is done at once, and nothing is left', async () => {
  const server = new FakeServer();
  const { outbox } = pageOf(server);
  expect(await outbox.do(act({ id: 'a', body: { n: 1 } }))).toEqual({
    kind: 'done',
    answer: { n: 1 },
  });
  expect(outbox.held).toEqual([]);
  expect(await outboxStore().all()).toEqual([]);
});

test('without one it waits, with whatever comes after it in its job, and goes out in its order', async () => {
  const server = new FakeServer();
  server.isAway = true;
  const { outbox } = pageOf(server);
  expect(await outbox.do(act({ id: 'a' }))).toEqual({ kind: 'waits' });
  server.isAway = false;
  expect(await outbox.do(act({ id: 'b' }))).toEqual({ kind: 'waits' });
  expect((await outbox.do(act({ id: 'of another', params: { job: 'job-2' } }))).kind).toBe('done');
  expect(outbox.held.map(({ id }) => id)).toEqual(['a', 'b']);
  await outbox.flush();
  expect(server.order).toEqual(['of another', 'a', 'b']);
  expect(outbox.held).toEqual([]);
});

test('the next page finds what waits, in its order, by the count and not by the clock', async () => {
  const server = new FakeServer();
  server.isAway = true;
  const before = pageOf(server);
  await before.outbox.do(act({ id: 'first', doneAt: 9_000 }));
  // The clock was put back a day.
  await before.outbox.do(act({ id: 'second', doneAt: -86_400_000 }));
  before.close();
  server.isAway = false;
  const after = pageOf(server);
  await after.outbox.flush();
  expect(server.order).toEqual(['first', 'second']);
});

test('what is refused later stays with why, and goes out again or is given up as a person says', async () => {
  const refused = { issues: [{ code: 'thing.unknown', where: 'device' } as const], conflicts: [] };
  const answers: Sent[] = [{ kind: 'away' }, { kind: 'refused', refused }];
  const done: string[] = [];
  const outbox = new Outbox({
    ...{ store: outboxStore(), changed: () => undefined, done: (job) => done.push(job) },
    send: () => Promise.resolve(answers.shift() ?? { kind: 'done', answer: undefined }),
    inTurn: (_job, work) => work(),
  });
  await outbox.do(act({ id: 'a' }));
  await outbox.flush();
  const [held] = outbox.held;
  expect(held?.refused).toEqual(refused);
  expect((await outboxStore().all())[0]?.refused).toEqual(refused);
  // It is not sent by itself once more, and holds nothing up.
  await outbox.flush();
  expect((await outbox.do(act())).kind).toBe('done');
  if (!held) throw new Error('nothing is held');
  await outbox.again(held);
  expect(outbox.held).toEqual([]);
  expect(done).toContain('job-1');
});

test('a browser without room says so, and only where nobody answers', async () => {
  const full = { ...outboxStore(), add: () => Promise.reject(new Error('QuotaExceededError')) };
  const answers: Sent[] = [{ kind: 'done', answer: 7 }, { kind: 'away' }];
  const outbox = new Outbox({
    ...{ store: full, changed: () => undefined, done: () => undefined },
    send: () => Promise.resolve(answers.shift() ?? { kind: 'away' }),
    inTurn: (_job, work) => work(),
  });
  expect(await outbox.do(act())).toEqual({ kind: 'done', answer: 7 });
  expect(await outbox.do(act())).toMatchObject({
    kind: 'refused',
    refused: { issues: [{ code: 'waiting.full' }] },
  });
});

test('of 40 days without a network, five acts each, closed at any moment, all arrive once', async () => {
  const random = randomOf(20261130);
  const server = new FakeServer();
  const ids: string[] = [];
  for (let day = 0; day < 40; day += 1) {
    const page = pageOf(server, random);
    server.isAway = random() < 0.7;
    const begun = Array.from({ length: 5 }, () => {
      const one = act();
      return { one, kept: page.outbox.do(one) };
    });
    if (random() < 0.5) server.isAway = false;
    void page.outbox.flush();
    for (let step = Math.floor(random() * 12); step > 0; step -= 1)
      await new Promise((resolve) => setTimeout(resolve, 0));
    // What the browser's database had taken by then is what a person has been told is kept.
    ids.push(...(await outboxStore().all()).map(({ id }) => id));
    page.close();
    void begun;
  }
  server.isAway = false;
  for (let again = 0; again < 20; again += 1) await pageOf(server, random).outbox.flush();
  const last = pageOf(server);
  await last.outbox.flush();
  await soon();
  expect(await outboxStore().all()).toEqual([]);
  expect(new Set(ids).size).toBeGreaterThan(60);
  for (const id of ids) expect(server.done.has(id)).toBe(true);
}, 60_000);
