import fc from 'fast-check';
import { must, parseMac } from '@ipsonomo/core/net';
import type { EvidenceKind } from '@ipsonomo/core/plan';
import { ip } from '../../../core/test/wire/samples';
import { cases } from '../../../core/test/cases';
import { fold } from '../../src/cli/fold';
import { audit } from '../../src/cli/audit';
import type { NewEvidence } from '../../src/store/evidence';
import { Scratch } from '../scratch';

// R-FOLD: what only says once more that a device asked becomes a count; what raised a stage, differs or was last stays.

let scratch: Scratch;
beforeAll(async () => {
  scratch = await Scratch.open('folding');
});
afterAll(() => scratch.close());

const BEGUN = 1_700_000_000_000; // ms since 1970, long ago
const MACS = ['02:00:5e:00:53:11', '02:00:5e:00:53:12'] as const;

interface Piece {
  readonly at: 'a' | 'b';
  readonly kind: EvidenceKind;
  readonly mac: 0 | 1;
  readonly word: string;
}

let jobs = 0;
const newJob = async (): Promise<string> =>
  (await scratch.store.addJob(`Folded ${(jobs += 1)}`)).id;

const rowOf = (jobId: string, piece: Piece, number: number): NewEvidence => ({
  ...{ jobId, interfaceId: piece.at, kind: piece.kind, at: BEGUN + number * 1000 },
  ...{ mac: must(parseMac(MACS[piece.mac])), address: ip('10.0.0.2'), source: 'practice' },
  ...{ facts: { message: piece.word }, person: '', runId: undefined, sequence: undefined },
  bytes: undefined,
});

const asked = (at: 'a' | 'b', word = 'DISCOVER', mac: 0 | 1 = 0): Piece => ({
  ...{ at, kind: 'asked' as const, mac, word },
});

async function written(pieces: readonly Piece[]): Promise<string> {
  const jobId = await newJob();
  await scratch.store.evidence.append(pieces.map((piece, at) => rowOf(jobId, piece, at)));
  return jobId;
}

const foldAll = (before = new Date(BEGUN + 1e9)) =>
  scratch.store.evidence.fold(before, 'Mara Quist');
const brokenOf = async (jobId: string) =>
  (await scratch.store.evidence.audit(1000)).filter((one) => one.jobId === jobId);
const seen = async (jobId: string, at: string) =>
  (await scratch.store.evidence.of(jobId, at, 1000)).toReversed().map((one) => ({
    kind: one.kind,
    number: (one.at - BEGUN) / 1000,
    again: one.again?.count ?? 0,
  }));

test('the first and the last of many alike stay, those between are counted at the first; the chain holds', async () => {
  const jobId = await written([
    ...Array.from({ length: 10 }, () => asked('a')),
    { ...asked('a'), kind: 'has-address' },
    ...Array.from({ length: 5 }, (_, i) => asked(i % 2 === 0 ? 'b' : 'a')),
  ]);
  expect(await brokenOf(jobId)).toEqual([]);
  const latest = await scratch.store.evidence.latest(jobId);
  expect(await foldAll()).toContainEqual({ jobId, count: 9 + 2 });
  expect(await seen(jobId, 'a')).toEqual([
    { kind: 'asked', number: 0, again: 10 },
    { kind: 'has-address', number: 10, again: 0 },
    { kind: 'asked', number: 14, again: 0 },
  ]);
  expect((await seen(jobId, 'b')).map(({ again }) => again)).toEqual([1, 0]);
  const [first] = await scratch.store.evidence.of(jobId, 'a', 9).then((all) => all.slice(-1));
  expect(first?.again?.until).toBe(BEGUN + 12_000);
  expect(await brokenOf(jobId)).toEqual([]);
  // What a stage depends on is what it was.
  expect(await scratch.store.evidence.latest(jobId)).toEqual(latest);
  expect(await scratch.store.evidence.auditLatest()).toEqual([]);
});

test('what differs stays: another MAC, another word, and what it was before', async () => {
  const jobId = await written([
    asked('a'),
    asked('a', 'REQUEST'),
    asked('a'),
    asked('a', 'DISCOVER', 1),
    asked('a'),
  ]);
  await foldAll();
  expect(await seen(jobId, 'a')).toHaveLength(5);
});

test('what is younger stays; folded again later, the counts add up and the chain goes on', async () => {
  const jobId = await written(Array.from({ length: 6 }, () => asked('a')));
  await foldAll(new Date(BEGUN + 2500));
  expect((await seen(jobId, 'a')).map(({ number, again }) => [number, again])).toEqual([
    [0, 2],
    [3, 0],
    [4, 0],
    [5, 0],
  ]);
  await scratch.store.evidence.append([rowOf(jobId, asked('a'), 6), rowOf(jobId, asked('b'), 7)]);
  await foldAll();
  expect((await seen(jobId, 'a')).map(({ number, again }) => [number, again])).toEqual([
    [0, 5],
    [6, 0],
  ]);
  await scratch.store.evidence.append([rowOf(jobId, asked('b'), 8)]);
  expect(await brokenOf(jobId)).toEqual([]);
  expect(await foldAll()).toEqual([]);
});

test('a piece that is removed or changed by hand beside folded ones is still found', async () => {
  const jobId = await written(Array.from({ length: 8 }, () => asked('a')));
  await foldAll(new Date(BEGUN + 4500));
  const byHand = async (sql: string) => {
    await scratch.knex.raw('alter table evidence disable trigger all');
    await scratch.knex.raw(sql, [jobId]);
    await scratch.knex.raw('alter table evidence enable trigger all');
  };
  await byHand('delete from evidence where job_id = ? and place = 6');
  expect(await brokenOf(jobId)).toMatchObject([{ interfaceId: 'a', kind: 'asked' }]);
  const other = await written(Array.from({ length: 4 }, () => asked('a')));
  await foldAll();
  await scratch.knex.raw('alter table evidence disable trigger all');
  await scratch.knex.raw("update evidence set person = 'x' where job_id = ? and place = 1", [
    other,
  ]);
  await scratch.knex.raw('alter table evidence enable trigger all');
  expect((await brokenOf(other)).length).toBeGreaterThan(0);
  // What says that something was folded is sealed as well.
  await expect(scratch.knex('evidence_gap').delete()).rejects.toThrow(/never changed/);
  await expect(scratch.knex('evidence').where('job_id', other).delete()).rejects.toThrow(
    /never changed/,
  );
});

const piece: fc.Arbitrary<Piece> = fc.record({
  at: fc.constantFrom('a' as const, 'b' as const),
  kind: fc.constantFrom('asked' as const, 'asked' as const, 'has-address' as const),
  mac: fc.constantFrom(0 as const, 0 as const, 1 as const),
  word: fc.constantFrom('DISCOVER', 'DISCOVER', 'REQUEST'),
});

test('seeded: nothing but repetitions goes, nothing is counted twice, the chain holds', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(piece, { minLength: 1, maxLength: 40 }),
      fc.nat(40),
      async (all, old) => {
        const jobId = await written(all);
        await foldAll(new Date(BEGUN + old * 1000 - 500));
        expect(await brokenOf(jobId)).toEqual([]);
        const left = { a: await seen(jobId, 'a'), b: await seen(jobId, 'b') };
        for (const at of ['a', 'b'] as const) {
          const own = all.map((one, number) => ({ ...one, number })).filter((one) => one.at === at);
          const counted = left[at].reduce((sum, { again }) => sum + 1 + again, 0);
          expect(counted).toBe(own.length);
          const there = new Set(left[at].map(({ number }) => number));
          for (const one of own.filter(({ number }) => !there.has(number))) {
            expect([one.kind, one.number < old]).toEqual(['asked', true]);
            // Before and after it stands the same, of those of its kind.
            const alike = own.filter(({ kind }) => kind === one.kind);
            const place = alike.findIndex(({ number }) => number === one.number);
            const { kind, mac, word } = one;
            expect(alike[place - 1]).toMatchObject({ kind, mac, word });
            expect(alike[place + 1]).toMatchObject({ kind, mac, word });
          }
        }
      },
    ),
    { numRuns: cases(25), seed: 88 },
  );
});

test('the command: what it says, what it refuses', async () => {
  const told: string[] = [];
  const output = { print: () => undefined, tell: (line: string) => void told.push(line) };
  for (const days of ['0', '-1', 'x', '1.5', '', '99999'])
    expect(await fold(days, output, 'postgres://nowhere')).toBe(false);
  expect(told.every((line) => line.includes('no number of days'))).toBe(true);
  expect(await fold('90', output, undefined)).toBe(false);
  expect(await fold('90', output, 'postgres://127.0.0.1:9/none')).toBe(false);
  expect(told.at(-1)).toContain('Nothing was folded');
  expect(await audit(output, false, 'postgres://127.0.0.1:9/none')).toBe(false);
});
