import { writePlanFile } from '@ipsonomo/core/formats';
import { docOfPlan } from '@ipsonomo/core/plan';
import { siteOf } from '../../../core/test/snags/big-site';
import { machineActor } from '../../src/service/actor';
import { PlanWork } from '../../src/service/plan-work';
import { PlanReader } from '../../src/service/read-plan';
import { Scratch } from '../scratch';

// Whole plans are written and read in a thread that has the database to itself; what becomes of it is told.

let scratch: Scratch;
let work: PlanWork;
beforeAll(async () => {
  scratch = await Scratch.open('plan_work');
  work = opened();
});
afterAll(async () => {
  await work.close();
  await scratch.close();
});

/** Everything is asked of the thread, however small it is. */
const opened = (fewThings = -1, fewBytes = -1) =>
  new PlanWork(
    scratch.store,
    new PlanReader(scratch.store),
    scratch.database,
    ...([fewThings, fewBytes] as const),
  );

const PERSON = machineActor('Mara Quist');
const file = (name: string, devices: number): string =>
  writePlanFile({ name, doc: docOfPlan(siteOf(devices, 12)) });
const bytesOf = (text: string) => new Uint8Array(Buffer.from(text));
const textOf = ({ bytes }: { readonly bytes: Uint8Array }): string => Buffer.from(bytes).toString();

test('a job is made of a plan file, counted, changed meanwhile, and written again as it is then', async () => {
  const jobId = await work.jobFromPlan(bytesOf(file('Plant', 30)), PERSON);
  expect(await work.counts(jobId)).toMatchObject({ devices: 30 });
  const out = await work.file({ kind: 'plan', jobId, withPapers: true });
  expect(out.name).toBe('Plant plan revision 1.json');
  expect(textOf(out)).toBe(file('Plant', 30));
  // Somebody else changes it: the thread's own plan is brought forward by the edit.
  const { doc } = await scratch.store.planState(jobId);
  const [device] = doc.device.values();
  const set = { op: 'set', type: 'device', id: device?.id ?? '', field: 'title' } as const;
  await scratch.store.change({ jobId, person: '', what: '' }, () => ({
    edits: [{ ...set, from: device?.['title'] ?? null, to: 'Another title' }],
    result: undefined,
  }));
  const list = await work.file({ kind: 'plan', jobId, withPapers: false });
  expect(list.name).toBe('Plant plan revision 2.json');
  expect(textOf(list)).toContain('Another title');
  expect(textOf(await work.file({ kind: 'kinds', jobId }))).toContain('ipsonomo-plan');
});

test('a refusal comes through with its codes and places, and nothing is made', async () => {
  const before = (await scratch.store.jobs()).length;
  const broken = file('Broken', 3).replace('"kindId":', '"kindID":');
  await expect(work.jobFromPlan(bytesOf(broken), PERSON)).rejects.toMatchObject({
    issues: [{ where: 'devices.0.kindID' }, { where: 'devices.0.kindId' }],
  });
  const latin = bytesOf(file('Latin', 3));
  latin[latin.indexOf(0x4c)] = 0xfc;
  await expect(work.jobFromPlan(latin, PERSON)).rejects.toThrow('file.json');
  await expect(work.counts('00000000-0000-4000-8000-000000000000')).rejects.toThrow(
    'thing.unknown',
  );
  expect(await scratch.store.jobs()).toHaveLength(before);
});

test('a thread that falls is told to whoever waits, and the next question has another', async () => {
  const own = opened();
  const jobId = await own.jobFromPlan(bytesOf(file('Falls', 12)), PERSON);
  const waiting = own.jobFromPlan(bytesOf(file('Lost', 12)), PERSON);
  await own.close();
  await expect(waiting).rejects.toThrow('server.thinking');
  expect(await own.counts(jobId)).toMatchObject({ devices: 12 });
  await own.close();
});

test('a small plan is answered without a thread, and the same', async () => {
  const own = opened(10_000, 1_000_000);
  const jobId = await own.jobFromPlan(bytesOf(file('Small', 12)), PERSON);
  for (const question of [
    { kind: 'kinds', jobId } as const,
    { kind: 'plan', jobId, withPapers: true } as const,
  ])
    expect(await own.file(question)).toEqual(await work.file(question));
  expect(await own.counts(jobId)).toEqual(await work.counts(jobId));
  await own.close();
});
