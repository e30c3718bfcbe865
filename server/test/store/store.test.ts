import { must, parseIpv4, parseMac, parsePrefix, type EvidenceKind } from '@ipsonomo/core';
import { Refusal } from '../../src/store/refusal';
import type { NewEvidence } from '../../src/store/store';
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

/** A job with one subnet and one device in it. */
async function jobWith(name: string) {
  const { store } = scratch;
  const job = await store.addJob(name);
  const prefix = must(parsePrefix('10.0.0.0/24'));
  const subnet = {
    name: 'Hall',
    prefix,
    gateway: ip('10.0.0.1'),
    vlan: 40,
    purpose: '',
    bands: [],
  };
  const subnetId = await store.change(
    { jobId: job.id, person: 'Mara', what: 'planned' },
    async (_plan, write) => {
      const id = await write.addSubnet(subnet);
      await write.addDevice({ ...DEVICE, name: 'drive-2' }, id, ip('10.0.0.86'));
      return id;
    },
  );
  const plan = await store.plan(job.id);
  const at = plan.devices[0]?.interfaces[0];
  if (!at) throw new Error('no interface');
  return { jobId: job.id, subnetId, subnet, plan, at };
}

const change = (jobId: string) => ({ jobId, person: 'Mara', what: 'changed' });

test('a plan comes back as it was written, and every change is a revision', async () => {
  const { jobId, subnet, plan } = await jobWith('comes back');
  expect(plan.subnets[0]).toEqual({ id: expect.any(String) as string, ...subnet });
  expect(plan.devices[0]).toMatchObject({ ...DEVICE, name: 'drive-2' });
  expect(plan.devices[0]?.interfaces[0]).toMatchObject({
    address: ip('10.0.0.86'),
    mac: undefined,
  });
  expect(await scratch.store.revisions(jobId)).toEqual({ last: 1, handedOver: 0 });
});

test('a change that fails in the middle leaves nothing behind', async () => {
  const { jobId, subnetId } = await jobWith('fails');
  const failing = scratch.store.change(change(jobId), async (_plan, write) => {
    await write.addDevice({ ...DEVICE, name: 'drive-3' }, subnetId, ip('10.0.0.87'));
    throw Refusal.of('address.taken', '10.0.0.87');
  });
  await expect(failing).rejects.toThrow('address.taken');
  expect((await scratch.store.plan(jobId)).devices).toHaveLength(1);
  expect((await scratch.store.revisions(jobId)).last).toBe(1);
});

test('two people who give one address at the same time: one of them is told', async () => {
  const { jobId, subnetId } = await jobWith('two people');
  const give = (name: string) =>
    scratch.store.change(change(jobId), (_plan, write) =>
      write.addDevice({ ...DEVICE, name }, subnetId, ip('10.0.0.90')),
    );
  const done = await Promise.allSettled([give('drive-a'), give('drive-b')]);
  expect(done.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected']);
  const refused = done.find((one) => one.status === 'rejected');
  expect(String(refused?.reason)).toContain('store.conflict');
});

test('the second of two changes sees what the first one made', async () => {
  const { jobId, subnetId } = await jobWith('in turn');
  const counts: number[] = [];
  const add = (name: string, last: number) =>
    scratch.store.change(change(jobId), async (plan, write) => {
      counts.push(plan.devices.length);
      await write.addDevice({ ...DEVICE, name }, subnetId, ip(`10.0.0.${last}`));
    });
  await Promise.all([add('drive-a', 91), add('drive-b', 92)]);
  expect(counts.sort()).toEqual([1, 2]);
});

test('a MAC is bound to one interface of a job and no more', async () => {
  const { jobId, subnetId, at } = await jobWith('one MAC');
  await scratch.store.change(change(jobId), async (_plan, write) => {
    await write.setMac(at.id, MAC);
    await write.addDevice({ ...DEVICE, name: 'drive-3' }, subnetId, ip('10.0.0.87'));
  });
  const other = (await scratch.store.plan(jobId)).devices[1]?.interfaces[0]?.id ?? '';
  const twice = scratch.store.change(change(jobId), (_plan, write) => write.setMac(other, MAC));
  await expect(twice).rejects.toThrow('store.conflict');
});

const evidence = (
  jobId: string,
  interfaceId: string,
  kind: EvidenceKind,
  fields: Partial<NewEvidence> = {},
): NewEvidence => ({
  ...{ jobId, interfaceId, kind, at: 1000, mac: MAC, address: ip('10.0.0.86') },
  ...{ source: 'practice', person: 'Mara', facts: {}, bytes: undefined },
  ...{ runId: undefined, sequence: undefined },
  ...fields,
});

test('evidence is appended, never changed and never removed, not even with its device', async () => {
  const { jobId, at, plan } = await jobWith('evidence');
  await scratch.store.append([evidence(jobId, at.id, 'asked', { facts: { message: 'DISCOVER' } })]);
  const here = () => scratch.knex('evidence').where({ interface_id: at.id });
  await expect(here().update({ kind: 'kept' })).rejects.toThrow('never changed');
  await expect(here().delete()).rejects.toThrow('never changed or removed');
  await scratch.store.change(change(jobId), (_plan, write) =>
    write.removeDevice(plan.devices[0]?.id ?? ''),
  );
  const [seen] = await scratch.store.evidenceOf(jobId, at.id, 10);
  expect(seen).toMatchObject({ kind: 'asked', at: 1000, mac: MAC, facts: { message: 'DISCOVER' } });
});

test('what a journal holds twice is written once', async () => {
  const { jobId, at } = await jobWith('twice');
  const run = await scratch.store.addRun(jobId, 'practice', 'Mara');
  const one = evidence(jobId, at.id, 'asked', { runId: run.id, sequence: 1 });
  const two = evidence(jobId, at.id, 'answered', { runId: run.id, sequence: 2, at: 1000.7 });
  await scratch.store.append([one]);
  await scratch.store.append([one, two]);
  const kinds = (await scratch.store.evidenceOf(jobId, at.id, 10)).map((each) => each.kind);
  expect(kinds).toEqual(['answered', 'asked']);
});

test('the latest of each kind, MAC and address is all that a stage needs', async () => {
  const { jobId, at } = await jobWith('latest');
  const other = must(parseMac('02:00:5e:00:53:12'));
  await scratch.store.append([
    ...Array.from({ length: 20 }, (_, i) => evidence(jobId, at.id, 'asked', { at: i })),
    evidence(jobId, at.id, 'asked', { at: 7, mac: other }),
    evidence(jobId, at.id, 'kept', { at: 3, address: undefined }),
    evidence(jobId, at.id, 'kept', { at: 2, address: undefined }),
  ]);
  const latest = (await scratch.store.latestEvidence(jobId)).get(at.id) ?? [];
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
  await scratch.store.append([
    evidence(jobId, at.id, 'asked', { runId: run.id, sequence: 1, at: seenAt }),
  ]);
  await scratch.store.endLeftRuns();
  expect((await scratch.store.runs(jobId))[0]?.ended_at?.getTime()).toBe(seenAt);
});

test('what is not there is said to be unknown', async () => {
  const nobody = '00000000-0000-4000-8000-000000000000';
  await expect(scratch.store.job(nobody)).rejects.toThrow('thing.unknown');
  const changing = scratch.store.change(change(nobody), () => Promise.resolve());
  await expect(changing).rejects.toThrow('thing.unknown');
});
