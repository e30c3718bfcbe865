import { must, parseIpv4, parseMac, parsePrefix } from '@ipsonomo/core/net';
import {
  docOf,
  toDevice,
  toInterface,
  toSubnet,
  type Edit,
  type EvidenceKind,
  type Json,
  type ThingDoc,
  type ThingType,
} from '@ipsonomo/core/plan';
import { snagsOf } from '@ipsonomo/core/snags';
import type { NewEvidence } from '../../src/store/evidence';
import { Store } from '../../src/store/store';
import { Scratch } from '../scratch';

let scratch: Scratch;

beforeAll(async () => {
  scratch = await Scratch.open('store');
});

afterAll(() => scratch.close());

const ip = (text: string) => must(parseIpv4(text));
const MAC = must(parseMac('02:00:5e:00:53:11'));

const DEVICE = {
  ...{ title: 'Drum filter drive 2', kindId: 'dunvarrick-drive-m', way: 'bootp' as const },
  ...{ area: '', cabinet: 'FH2', position: '3' },
};

const boundAt = (jobId: string, facts: NewEvidence['facts']): NewEvidence => ({
  ...{ jobId, interfaceId: 'drive-2-at', kind: 'bound' as const, at: 1_790_000_000_000 },
  ...{ mac: MAC, address: ip('10.0.0.86'), facts, source: 'desk', person: 'Mara Quist' },
  ...{ runId: undefined, sequence: undefined, bytes: undefined },
});

test('a decision and its evidence are kept together or not at all', async () => {
  const { store } = scratch;
  const { jobId: id } = await jobWith('Decided');
  const change = { jobId: id, person: 'Mara Quist', what: 'bound' };
  const before = (await store.evidence.of(id, 'drive-2-at', 100)).length;
  const [device] = deviceEdits('drive-9', 'hall', '10.0.0.99');
  const decide = (facts: NewEvidence['facts']) => () => ({
    ...{ edits: device ? [device] : [], result: undefined },
    evidence: [boundAt(id, facts)],
  });
  // A NUL is what the database refuses.
  await expect(store.change(change, decide({ label: 'a\0' }))).rejects.toThrow();
  const plan = await store.plan(id);
  expect(plan.devices.map((one) => one.id)).not.toContain('drive-9');
  expect(await store.evidence.of(id, 'drive-2-at', 100)).toHaveLength(before);
  await store.change(change, decide({ label: 'a' }));
  expect((await store.plan(id)).devices.map((one) => one.id)).toContain('drive-9');
  expect(await store.evidence.of(id, 'drive-2-at', 100)).toHaveLength(before + 1);
});

test('decisions and what is seen meanwhile do not stand in each other’s way', async () => {
  const { store } = scratch;
  const { jobId: id } = await jobWith('Busy');
  const change = { jobId: id, person: 'Mara Quist', what: 'bound' };
  const before = (await store.evidence.of(id, 'drive-2-at', 1000)).length;
  await Promise.all(
    Array.from({ length: 60 }, async (_, i) => {
      const seen = boundAt(id, { label: `seen ${i}` });
      await store.evidence.append([seen, seen, seen]);
      const [device] = deviceEdits(`busy-${i}`, 'hall', `10.0.0.${100 + i}`);
      const decided = { edits: device ? [device] : [], result: undefined };
      await store.change(change, () => ({ ...decided, evidence: [boundAt(id, {})] }));
    }),
  );
  expect(await store.evidence.of(id, 'drive-2-at', 1000)).toHaveLength(before + 60 * 4);
  expect(await store.evidence.audit()).toEqual([]);
});

const add = (type: ThingType, thing: ThingDoc): Edit => ({ op: 'add', type, thing });

const deviceEdits = (id: string, subnetId: string, address: string): readonly Edit[] => [
  add('device', docOf('device', toDevice({ ...DEVICE, id, name: id }))),
  add(
    'interface',
    docOf(
      'interface',
      toInterface({ id: `${id}-at`, deviceId: id, subnetId, address: ip(address) }),
    ),
  ),
];

/** A job with one subnet and one device in it. */
async function jobWith(name: string) {
  const { store } = scratch;
  const job = await store.addJob(name);
  const subnet = toSubnet({
    ...{ id: 'hall', name: 'Hall', prefix: must(parsePrefix('10.0.0.0/24')) },
    ...{ gateway: ip('10.0.0.1'), vlan: 40 },
  });
  await make(job.id, [
    add('subnet', docOf('subnet', subnet)),
    ...deviceEdits('drive-2', 'hall', '10.0.0.86'),
  ]);
  const plan = await store.plan(job.id);
  const at = plan.devices[0]?.interfaces[0];
  if (!at) throw new Error('no interface');
  return { jobId: job.id, subnetId: 'hall', subnet, plan, at };
}

const make = (jobId: string, edits: readonly Edit[]) =>
  scratch.store.change(change(jobId), () => ({ edits, result: undefined }));

const setAt = (field: string, from: Json, to: Json): Edit => ({
  ...{ op: 'set', type: 'interface', id: 'drive-2-at' },
  ...{ field, from, to },
});

const change = (jobId: string) => ({ jobId, person: 'Mara', what: 'changed' });

test('a plan comes back as it was written, and every change is a revision', async () => {
  const { jobId, subnet, plan } = await jobWith('comes back');
  expect(plan.subnets).toEqual([subnet]);
  expect(plan.devices[0]).toMatchObject({ ...DEVICE, name: 'drive-2' });
  expect(plan.devices[0]?.interfaces[0]).toMatchObject({
    address: ip('10.0.0.86'),
    mac: undefined,
  });
  expect(await scratch.store.revisions(jobId)).toEqual({ last: 1, handedOver: 0 });
});

test('a store that knows nothing yet reads the same plan', async () => {
  const { jobId, plan } = await jobWith('read anew');
  expect(await new Store(scratch.knex).plan(jobId)).toEqual(plan);
});

test('a change that is refused in the middle leaves nothing behind', async () => {
  const { jobId, subnetId } = await jobWith('fails');
  const refused = make(jobId, [
    ...deviceEdits('drive-3', subnetId, '10.0.0.87'),
    setAt('address', '10.0.0.99', '10.0.0.100'),
  ]);
  await expect(refused).rejects.toThrow('edit.conflict');
  expect((await scratch.store.plan(jobId)).devices).toHaveLength(1);
  expect((await scratch.store.revisions(jobId)).last).toBe(1);
});

// R-MERGE
test('two people at once: different fields merge, the same one is shown with both', async () => {
  const { jobId } = await jobWith('two people');
  await Promise.all([
    make(jobId, [setAt('address', '10.0.0.86', '10.0.0.87')]),
    make(jobId, [setAt('mac', null, '02:00:5e:00:53:11')]),
  ]);
  expect((await scratch.store.plan(jobId)).devices[0]?.interfaces[0]).toMatchObject({
    ...{ address: ip('10.0.0.87'), mac: MAC },
  });
  const late = make(jobId, [setAt('address', '10.0.0.86', '10.0.0.90')]);
  await expect(late).rejects.toMatchObject({
    conflicts: [{ base: '10.0.0.86', theirs: '10.0.0.87', mine: '10.0.0.90', field: 'address' }],
  });
});

test('two people who give one address: both are kept, for a snag to tell of', async () => {
  const { jobId, subnetId } = await jobWith('one address');
  await Promise.all(
    ['drive-a', 'drive-b'].map((id) => make(jobId, deviceEdits(id, subnetId, '10.0.0.90'))),
  );
  const plan = await scratch.store.plan(jobId);
  expect(plan.devices).toHaveLength(3);
  expect(snagsOf(plan).map((one) => one.rule)).toContain('S-ADDRESS-TWICE');
});

test('the second of two changes sees what the first one made', async () => {
  const { jobId, subnetId } = await jobWith('in turn');
  const counts: number[] = [];
  const one = (id: string, last: number) =>
    scratch.store.change(change(jobId), ({ doc }) => {
      counts.push(doc.device.size);
      return { edits: deviceEdits(id, subnetId, `10.0.0.${last}`), result: undefined };
    });
  await Promise.all([one('drive-a', 91), one('drive-b', 92)]);
  expect(counts.sort()).toEqual([1, 2]);
});

test('a change of nothing is no revision', async () => {
  const { jobId } = await jobWith('nothing');
  const { revision, edits } = await make(jobId, [setAt('address', '10.0.0.1', '10.0.0.86')]);
  expect([revision, edits]).toEqual([1, []]);
});

const evidence = (
  jobId: string,
  interfaceId: string,
  kind: EvidenceKind,
  fields: Partial<NewEvidence> = {},
): NewEvidence => ({
  ...{ jobId, interfaceId, kind, at: 1000, mac: MAC, address: ip('10.0.0.86') },
  ...{ source: 'practice', person: 'Mara', bytes: undefined },
  facts: { message: 'DISCOVER', reply: 'ACK', gave: '10.0.0.86' },
  ...{ runId: undefined, sequence: undefined },
  ...fields,
});

test('evidence is appended, never changed and never removed, not even with its device', async () => {
  const { jobId, at, plan } = await jobWith('evidence');
  await scratch.store.evidence.append([
    evidence(jobId, at.id, 'asked', { facts: { message: 'DISCOVER' } }),
  ]);
  const here = () => scratch.knex('evidence').where({ interface_id: at.id });
  await expect(here().update({ kind: 'kept' })).rejects.toThrow('never changed');
  await expect(here().delete()).rejects.toThrow('never changed or removed');
  const { doc } = await scratch.store.planState(jobId);
  const things = [...doc.interface.values()].map((thing) => ['interface', thing] as const);
  const all = [...things, ...[...doc.device.values()].map((thing) => ['device', thing] as const)];
  await make(
    jobId,
    all.map(([type, thing]): Edit => ({ op: 'remove', type, thing })),
  );
  expect(plan.devices).toHaveLength(1);
  expect((await scratch.store.plan(jobId)).devices).toEqual([]);
  const [seen] = await scratch.store.evidence.of(jobId, at.id, 10);
  expect(seen).toMatchObject({ kind: 'asked', at: 1000, mac: MAC, facts: { message: 'DISCOVER' } });
});

test('what a journal holds twice is written once', async () => {
  const { jobId, at } = await jobWith('twice');
  const run = await scratch.store.addRun(jobId, 'practice', 'Mara');
  const one = evidence(jobId, at.id, 'asked', { runId: run.id, sequence: 1 });
  const two = evidence(jobId, at.id, 'answered', { runId: run.id, sequence: 2, at: 1000.7 });
  await scratch.store.evidence.append([one]);
  await scratch.store.evidence.append([one, two]);
  const kinds = (await scratch.store.evidence.of(jobId, at.id, 10)).map((each) => each.kind);
  expect(kinds).toEqual(['answered', 'asked']);
});

test('the latest of each kind, MAC and address is all that a stage needs', async () => {
  const { jobId, at } = await jobWith('latest');
  const other = must(parseMac('02:00:5e:00:53:12'));
  await scratch.store.evidence.append([
    ...Array.from({ length: 20 }, (_, i) => evidence(jobId, at.id, 'asked', { at: i })),
    evidence(jobId, at.id, 'asked', { at: 7, mac: other }),
    evidence(jobId, at.id, 'kept', { at: 3, address: undefined }),
    evidence(jobId, at.id, 'kept', { at: 2, address: undefined }),
  ]);
  const latest = (await scratch.store.evidence.latest(jobId)).byInterface.get(at.id) ?? [];
  expect(latest.map(({ kind, at: time, mac }) => [kind, time, mac === MAC])).toEqual([
    ['kept', 3, true],
    ['asked', 7, false],
    ['asked', 19, true],
  ]);
});

test('a run that a crash left open ends with the last thing it saw', async () => {
  const { jobId, at } = await jobWith('left open');
  const run = await scratch.store.addRun(jobId, 'practice', 'Mara');
  const seenAt = 1_764_000_000_000;
  await scratch.store.evidence.append([
    evidence(jobId, at.id, 'asked', { runId: run.id, sequence: 1, at: seenAt }),
  ]);
  await scratch.store.endLeftRuns();
  expect((await scratch.store.runs(jobId))[0]?.ended_at?.getTime()).toBe(seenAt);
});

test('what is not there is said to be unknown', async () => {
  const nobody = '00000000-0000-4000-8000-000000000000';
  await expect(scratch.store.job(nobody)).rejects.toThrow('thing.unknown');
  const changing = scratch.store.change(change(nobody), () => ({ edits: [], result: 1 }));
  await expect(changing).rejects.toThrow('thing.unknown');
});
