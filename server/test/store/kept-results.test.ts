import fc from 'fast-check';
import type { JobCounts } from '@ipsonomo/core/api';
import { must, parseMac, parsePrefix } from '@ipsonomo/core/net';
import {
  docOf,
  interfacesOf,
  toDevice,
  toInterface,
  toSubnet,
  type Edit,
  type Evidence,
  type EvidenceKind,
  type Plan,
} from '@ipsonomo/core/plan';
import { JobSummaries } from '../../src/service/job-summaries';
import { PlanReader } from '../../src/service/read-plan';
import { Rounds } from '../../src/service/round';
import { SeenBook } from '../../src/service/seen-book';
import { Thinking } from '../../src/service/thinking';
import type { NewEvidence } from '../../src/store/evidence';
import { Store } from '../../src/store/store';
import { ip } from '../../../core/test/wire/samples';
import { cases } from '../../../core/test/cases';
import { Scratch } from '../scratch';

// What is kept beside what it was made from says the same, and what grows with a plan is not read again.

let scratch: Scratch;
/** What was asked of the database, as it was written. */
const asked: string[] = [];

beforeAll(async () => {
  scratch = await Scratch.open('kept_results');
  scratch.knex.on('query', ({ sql }: { readonly sql: string }) => asked.push(sql));
});
afterAll(() => scratch.close());

const askedFor = (part: RegExp): number => asked.filter((sql) => part.test(sql)).length;

const CHANGE = { person: 'Mara Quist', what: 'planned' };

const deviceEdits = (id: string, address: string): readonly Edit[] => {
  const at = toInterface({ id: `${id}-at`, deviceId: id, subnetId: 'hall', address: ip(address) });
  const kind = { kindId: 'dunvarrick-drive-m', way: 'bootp' as const };
  const device = toDevice({ id, title: id, name: id, ...kind, interfaces: [at] });
  return [
    { op: 'add', type: 'device', thing: docOf('device', device) },
    { op: 'add', type: 'interface', thing: docOf('interface', at) },
  ];
};

let jobs = 0;
async function jobWith(count: number): Promise<string> {
  const { id } = await scratch.store.addJob(`Job ${(jobs += 1)}`);
  const hall = toSubnet({ id: 'hall', name: 'Hall', prefix: must(parsePrefix('10.0.0.0/16')) });
  const edits: readonly Edit[] = [
    { op: 'add', type: 'subnet', thing: docOf('subnet', hall) },
    ...Array.from({ length: count }, (_, at) =>
      deviceEdits(`d${at}`, `10.0.${at >> 7}.${(at & 127) + 2}`),
    ).flat(),
  ];
  await scratch.store.change({ ...CHANGE, jobId: id }, () => ({ edits, result: undefined }));
  return id;
}

const add = (store: Store, jobId: string, id: string, address: string) =>
  store.change({ ...CHANGE, jobId }, () => ({
    edits: deviceEdits(id, address),
    result: undefined,
  }));

const MACS = ['02:00:5e:00:53:11', '02:00:5e:00:53:12', undefined] as const;
const KINDS: readonly EvidenceKind[] = ['asked', 'has-address', 'kept', 'found-as-planned'];

const pieceOf = (jobId: string, fields: Partial<NewEvidence> = {}): NewEvidence => ({
  ...{ jobId, interfaceId: 'd0-at', kind: 'asked' as const, at: 1_790_000_000_000 },
  ...{
    mac: must(parseMac(MACS[0])),
    address: ip('10.0.0.2'),
    facts: { message: 'DISCOVER' },
    source: 'desk',
  },
  ...{ person: 'Mara Quist', runId: undefined, sequence: undefined, bytes: undefined },
  ...fields,
});

const pieces = fc.record({
  interfaceId: fc.constantFrom('d0-at', 'd1-at', 'd2-at'),
  kind: fc.constantFrom(...KINDS),
  at: fc.nat(20).map((millis) => 1_790_000_000_000 + millis),
  mac: fc.constantFrom(...MACS).map((mac) => (mac ? must(parseMac(mac)) : undefined)),
  address: fc.constantFrom(ip('10.0.0.2'), ip('10.0.0.3'), undefined),
});

describe('the plan', () => {
  test('is read whole once, however many see that there is one', async () => {
    const id = await jobWith(20);
    const fresh = new Store(scratch.knex);
    asked.length = 0;
    const states = await Promise.all(Array.from({ length: 30 }, () => fresh.planState(id)));
    expect(askedFor(/from "thing"/)).toBe(1);
    expect(new Set(states).size).toBe(1);
  });

  test('is brought forward by the edits that another server made, and not read again', async () => {
    const id = await jobWith(20);
    const other = new Store(scratch.knex);
    const before = await scratch.store.planState(id);
    await add(other, id, 'new', '10.0.9.9');
    await add(other, id, 'newer', '10.0.9.10');
    asked.length = 0;
    const states = await Promise.all(Array.from({ length: 10 }, () => scratch.store.planState(id)));
    expect(askedFor(/from "thing"/)).toBe(0);
    expect(askedFor(/select "edits" from "revision"/)).toBe(1);
    for (const { revision, doc } of states) {
      expect(revision).toBe(before.revision + 2);
      expect([...doc.device.keys()].slice(-2)).toEqual(['new', 'newer']);
    }
    expect((await new Store(scratch.knex).planState(id)).doc).toEqual(states[0]?.doc);
  });

  test('never gets older for whoever reads while it is changed', async () => {
    const id = await jobWith(3);
    const seen: number[] = [];
    let isOver = false;
    const reading = Array.from({ length: 4 }, async () => {
      let last = 0;
      while (!isOver) {
        const { revision } = await scratch.store.planState(id);
        seen.push(revision);
        expect(revision).toBeGreaterThanOrEqual(last);
        last = revision;
      }
    });
    for (let at = 0; at < 25; at += 1) {
      const { revision } = await add(scratch.store, id, `n${at}`, `10.0.8.${at + 2}`);
      expect((await scratch.store.planState(id)).revision).toBeGreaterThanOrEqual(revision);
    }
    isOver = true;
    await Promise.all(reading);
    expect(seen.length).toBeGreaterThan(25);
  });

  test('two servers write one job at once: every change is there, once, and both know the same', async () => {
    const id = await jobWith(3);
    const servers = [scratch.store, new Store(scratch.knex)];
    const made = await Promise.all(
      Array.from({ length: 24 }, (_, at) =>
        add(servers[at % 2] ?? scratch.store, id, `w${at}`, `10.0.7.${at + 2}`),
      ),
    );
    const numbers = made.map(({ revision }) => revision).sort((a, b) => a - b);
    expect(numbers).toEqual(Array.from({ length: 24 }, (_, at) => (numbers[0] ?? 0) + at));
    const [one, other] = await Promise.all(servers.map((server) => server.planState(id)));
    expect(one?.revision).toBe(numbers.at(-1));
    expect(other).toEqual(one);
    expect([...(one?.doc.device.keys() ?? [])].filter((key) => key.startsWith('w'))).toHaveLength(
      24,
    );
  });

  test('of a job that is gone in the middle is told as unknown', async () => {
    const id = await jobWith(3);
    const fresh = new Store(scratch.knex);
    const readings = Array.from({ length: 5 }, () => fresh.planState(id));
    await scratch.knex('job').where({ id }).delete();
    for (const reading of await Promise.allSettled(readings))
      if (reading.status === 'rejected') expect(String(reading.reason)).toMatch(/thing.unknown/);
    await expect(add(fresh, id, 'late', '10.0.9.9')).rejects.toThrow('thing.unknown');
  });

  test('with its revision named is the same plan', async () => {
    const id = await jobWith(3);
    const { revision, doc } = await scratch.store.planState(id);
    await scratch.store.nameRevision(id, revision, 'As ordered');
    asked.length = 0;
    expect(await scratch.store.planState(id)).toEqual({ revision, doc, lastNamed: revision });
    expect(askedFor(/from "thing"/)).toBe(0);
  });
});

/** The slow form: the last of each by looking at every piece. */
async function lastOfEach(jobId: string): Promise<ReadonlyMap<string, readonly Evidence[]>> {
  const interfaces = ['d0-at', 'd1-at', 'd2-at'];
  const found = new Map<string, readonly Evidence[]>();
  for (const at of interfaces) {
    const last = new Map<string, Evidence>();
    for (const one of [...(await scratch.store.evidence.of(jobId, at, 10_000))].reverse())
      last.set(`${one.kind} ${one.mac} ${one.address}`, one);
    if (last.size > 0)
      found.set(
        at,
        [...last.values()].sort((a, b) => a.at - b.at || Number(a.id) - Number(b.id)),
      );
  }
  return found;
}

describe('the latest evidence', () => {
  test('is what all of it says, brought forward or read anew, in whatever order it came', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(pieces, { minLength: 1, maxLength: 8 }), { maxLength: 6 }),
        async (batches) => {
          const { id } = await scratch.store.addJob(`Job ${(jobs += 1)}`);
          for (const batch of batches) {
            await scratch.store.evidence.append(batch.map((one) => pieceOf(id, one)));
            const { byInterface, place } = await scratch.store.evidence.latest(id);
            expect(byInterface).toEqual(await lastOfEach(id));
            const anew = await new Store(scratch.knex).evidence.latest(id);
            expect(anew).toEqual({ byInterface, place });
          }
        },
      ),
      { numRuns: cases(12), seed: 1501 },
    );
    expect(await scratch.store.evidence.auditLatest()).toEqual([]);
  });

  test('is read by its table, and only what is new afterwards', async () => {
    const id = await jobWith(3);
    await scratch.store.evidence.append([
      ...Array.from({ length: 50 }, (_, at) => pieceOf(id, { at })),
      pieceOf(id, { interfaceId: 'd1-at' }),
    ]);
    await scratch.store.evidence.latest(id);
    const list = (await scratch.store.evidence.latest(id)).byInterface.get('d1-at');
    asked.length = 0;
    await scratch.store.evidence.append([pieceOf(id, { at: 99, facts: { new: 1 } })]);
    const latest = await Promise.all(
      Array.from({ length: 8 }, () => scratch.store.evidence.latest(id)),
    );
    expect(latest[0]?.byInterface.get('d0-at')?.at(-1)?.facts).toEqual({ new: 1 });
    expect(list).toHaveLength(1);
    expect(latest[0]?.byInterface.get('d1-at')).toBe(list);
    expect(askedFor(/"latest_evidence"/)).toBe(0);
    expect(askedFor(/from "evidence".*"place" > /)).toBe(1);
  });

  test('that is not what the evidence says is named, and made anew', async () => {
    const id = await jobWith(1);
    await scratch.store.evidence.append([pieceOf(id, { at: 5 }), pieceOf(id, { at: 9 })]);
    await scratch.knex.raw(
      `update latest_evidence set evidence_id = (select min(id) from evidence where job_id = :id)
       where job_id = :id`,
      { id },
    );
    expect(await scratch.store.evidence.auditLatest()).toEqual([
      { jobId: id, interfaceId: 'd0-at', kind: 'asked' },
    ]);
    await scratch.store.evidence.rebuildLatest();
    expect(await scratch.store.evidence.auditLatest()).toEqual([]);
  });
});

describe('what was seen of a plan', () => {
  const planOf = (plan: Plan, revision: number) => ({ plan, revision });

  test('is told as what changed since, and together that is the whole', async () => {
    const id = await jobWith(3);
    const reader = new PlanReader(scratch.store);
    let known = await reader.progress(id);
    expect(known.isWhole).toBe(true);
    for (let step = 0; step < 6; step += 1) {
      if (step === 3) await add(scratch.store, id, 'more', '10.0.9.9');
      else
        await scratch.store.evidence.append([
          pieceOf(id, { interfaceId: `d${step % 3}-at`, kind: 'has-address', at: step }),
        ]);
      const news = await reader.progress(id, known.mark);
      expect(news.isWhole).toBe(false);
      expect(Object.keys(news.seen)).toEqual(step === 3 ? [] : [`d${step % 3}-at`]);
      known = { ...news, seen: { ...known.seen, ...news.seen } };
      expect(known.seen).toEqual((await new PlanReader(scratch.store).progress(id)).seen);
    }
    expect((await reader.progress(id, 'another-7')).isWhole).toBe(true);
    expect((await reader.progress(id, known.mark)).seen).toEqual({});
  });

  test('is not taken back by a reader who comes late with an older state', async () => {
    const id = await jobWith(3);
    const older = planOf(await scratch.store.plan(id), 1);
    const before = await scratch.store.evidence.latest(id);
    await scratch.store.evidence.append([pieceOf(id, { kind: 'has-address' })]);
    const latest = await scratch.store.evidence.latest(id);
    await add(scratch.store, id, 'more', '10.0.9.9');
    const newer = planOf(await scratch.store.plan(id), 2);
    const book = new SeenBook();
    await book.bring({ ...newer, latest });
    const { mark, seen } = book.since(undefined);
    expect(await book.bring({ ...older, latest: before })).toEqual({ ...newer, latest });
    expect(book.since(undefined)).toEqual({ mark, seen, isWhole: true });
  });
});

const countsOf = async (id: string): Promise<JobCounts> => {
  const { subnets, devices, left } = await new PlanReader(scratch.store).job(id);
  return { subnets: subnets.length, devices: devices.length, left };
};

describe('the list of jobs', () => {
  const listOf = async (madeBy = 'one') => {
    const made: string[] = [];
    const count = (id: string) => {
      made.push(id);
      return countsOf(id);
    };
    const list = await new JobSummaries(scratch.store, count, madeBy, 60_000).list();
    return { list, made };
  };

  test('makes a summary anew only where an edit, evidence, a hand-over or another program came', async () => {
    await listOf();
    expect((await listOf()).made).toEqual([]);
    const id = await jobWith(4);
    const { list, made } = await listOf();
    expect(made).toEqual([id]);
    const own = { id, counts: { subnets: 1, devices: 4 } };
    expect(list.find((one) => one.id === id)).toMatchObject(own);
    for (const change of [
      () => add(scratch.store, id, 'more', '10.0.9.9'),
      () => scratch.store.evidence.append([pieceOf(id, { kind: 'has-address' })]),
      () => scratch.store.addHandOver(id, { reader: 'it', person: '', revision: 1, formats: [] }),
    ]) {
      await change();
      expect((await listOf()).made).toEqual([id]);
      const again = await listOf();
      expect(again.made).toEqual([]);
      const { left } = await new PlanReader(scratch.store).job(id);
      expect(again.list.find((one) => one.id === id)).toMatchObject({
        counts: { devices: 5, left },
      });
    }
    expect((await listOf('two')).made.length).toBe(list.length);
  });

  test('what takes long is listed without its counts, and counted once, however often it is asked for', async () => {
    const { list: all } = await listOf('three');
    const slow = all.slice(0, 2).map(({ id }) => id);
    let go: () => void = () => undefined;
    const gate = new Promise<void>((resolve) => (go = resolve));
    const asked: string[] = [];
    const summaries = new JobSummaries(
      scratch.store,
      async (id) => {
        asked.push(id);
        if (slow.includes(id)) await gate;
        return countsOf(id);
      },
      'four',
      2000,
    );
    const before = await summaries.list();
    expect(before.filter(({ counts }) => counts === null).map(({ id }) => id)).toEqual(slow);
    expect(before.map(({ name }) => name)).toEqual(all.map(({ name }) => name));
    await summaries.list();
    go();
    expect(await summaries.list()).toEqual(all);
    expect([...asked].sort()).toEqual(all.map(({ id }) => id).sort());
  });

  test('where a job cannot be counted whoever asked is told, and the next one is counted all the same', async () => {
    const { list: all } = await listOf('five');
    let fails = true;
    const summaries = new JobSummaries(
      scratch.store,
      (id) => (fails ? Promise.reject(new Error('its thread fell')) : countsOf(id)),
      'six',
      60_000,
    );
    await expect(summaries.list()).rejects.toThrow('its thread fell');
    fails = false;
    expect(await summaries.list()).toEqual(all);
  });
});

describe('the round', () => {
  test('is ordered once for all who ask, in a thread where it is long, which may fall', async () => {
    const id = await jobWith(90);
    const reader = new PlanReader(scratch.store);
    const thinking = new Thinking();
    const rounds = new Rounds(reader, thinking);
    const order = jest.spyOn(thinking, 'order');
    const views = await Promise.all(Array.from({ length: 5 }, () => rounds.of(id)));
    expect(order).toHaveBeenCalledTimes(1);
    const [first] = views;
    if (!first || !('order' in first)) throw new Error('no round');
    expect(await rounds.of(id, first.mark)).toEqual({ mark: first.mark });
    const all = interfacesOf(await scratch.store.plan(id)).map(({ at }) => at.id);
    expect([...first.order].sort()).toEqual([...all].sort());
    await add(scratch.store, id, 'more', '10.0.9.9');
    const broken = rounds.of(id);
    await thinking.close();
    // It fell before or after its answer; whoever asks next has it.
    await broken.catch((error: unknown) => expect(String(error)).toMatch(/server.thinking/));
    expect(await rounds.of(id)).toHaveProperty('order.length', 91);
    await thinking.close();
  });
});

describe('the hot questions', () => {
  const JOB = '00000000-0000-4000-8000-000000000001';
  test.each<[string, string]>([
    ['the last piece', 'select max(place) from evidence where job_id = :id'],
    ['what is new', 'select * from evidence where job_id = :id and place > 10 order by place'],
    [
      'of one device',
      `select * from evidence where job_id = :id and interface_id = 'd0-at'
       order by at desc, id desc limit 200`,
    ],
    [
      'of one run',
      `select distinct on (interface_id) * from evidence where job_id = :id
       and facts->>'proof' = 'x' order by interface_id, at desc, id desc`,
    ],
    [
      'the latest',
      `select evidence.* from evidence join latest_evidence
       on latest_evidence.evidence_id = evidence.id where latest_evidence.job_id = :id`,
    ],
  ])('%s: no piece is looked at that is not asked for', async (_what, sql) => {
    // A table of a few pages is read whole whatever its indexes: what may be done without that is asked.
    const text = await scratch.knex.transaction(async (trx) => {
      await trx.raw('set local enable_seqscan = off');
      const { rows } = await trx.raw<{ rows: readonly { 'QUERY PLAN': string }[] }>(
        `explain ${sql}`,
        { id: JOB },
      );
      return rows.map((row) => row['QUERY PLAN']).join('\n');
    });
    expect(text).not.toMatch(/Seq Scan on evidence/);
  });
});

describe('a database that has all its connections at work', () => {
  test('is told as busy, and not as away', async () => {
    const { knex } = scratch;
    // A schema of a test's own has two of them.
    const held = await Promise.all([knex.transaction(), knex.transaction()]);
    await expect(scratch.store.jobs()).rejects.toThrow('store.busy');
    for (const one of held) await one.rollback();
    expect((await scratch.store.jobs()).length).toBeGreaterThan(0);
  }, 30_000);
});
