import JSZip from 'jszip';
import { readPlanFile } from '@ipsonomo/core/formats';
import { ApiBench, asBytes, device } from './api-bench';

// R-WHOLE-JOB: everything in one file, and only then a job may go for good.

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('whole_job');
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const everything = async (path: string): Promise<JSZip> => {
  const answer = await bench
    .call('get', `${path}/everything.zip`)
    .buffer(true)
    .parse(asBytes as never)
    .expect(200);
  expect(answer.headers['content-type']).toBe('application/zip');
  return JSZip.loadAsync(answer.body as Buffer);
};
const linesOf = async (zip: JSZip, name: string): Promise<readonly Record<string, unknown>[]> =>
  ((await zip.file(name)?.async('string')) ?? '')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Record<string, unknown>);
const remove = (path: string, name: string) => bench.call('post', `${path}/delete`).send({ name });
const codesOf = (answer: { readonly body: unknown }) =>
  (answer.body as { readonly issues: readonly { readonly code: string }[] }).issues.map(
    ({ code }) => code,
  );

let made = 0;
/** Another name at each try. */
const named = (name: string): string => `${name} ${(made += 1)}`;

async function jobWithEvidence(name: string): Promise<string> {
  const { path, subnetId } = await bench.jobOf(name);
  await bench.add(path, device({ subnetId, name: 'vb-1', address: '10.9.0.31' }));
  const [one] = (await bench.view(path)).devices;
  const at = one?.interfaces[0]?.id ?? '';
  await bench
    .call('post', `${path}/interfaces/${at}/bind`)
    .send({ mac: '02:00:5e:00:53:31', label: '02-00-5E-00-53-31' })
    .expect((answer) => expect(answer.status).toBeLessThan(300));
  return path;
}

test('one file has the plan, every revision and every piece of evidence with what seals it', async () => {
  const name = named('Whole');
  const path = await jobWithEvidence(name);
  const zip = await everything(path);
  const plan = readPlanFile((await zip.file('plan.json')?.async('string')) ?? '');
  expect(plan).toMatchObject({ ok: true, value: { name } });
  const revisions = await linesOf(zip, 'revision.jsonl');
  expect(revisions.map(({ number }) => number)).toEqual(revisions.map((_one, at) => at + 1));
  const evidence = await linesOf(zip, 'evidence.jsonl');
  expect(evidence.map(({ kind }) => kind)).toContain('bound');
  expect(evidence.every(({ chain }) => typeof chain === 'string')).toBe(true);
});

test('it goes for good only archived, written as it is, and by its name', async () => {
  const name = named('Going');
  const path = await jobWithEvidence(name);
  // A job that stays is not even disturbed.
  const listening = async () =>
    ((await bench.call('get', `${path}/wire`).expect(200)).body as { runId: string | null }).runId;
  await bench.call('post', `${path}/wire`).send({ kind: 'practice' }).expect(200);
  await bench.call('post', `${path}/wire/listen`).send({}).expect(200);
  expect(codesOf(await remove(path, 'Staying').expect(409))).toEqual(['job.otherName']);
  expect(codesOf(await remove(path, name).expect(409))).toEqual(['job.notArchived']);
  expect(await listening()).not.toBeNull();
  await bench.call('post', `${path}/archive`).send({ archived: true }).expect(204);
  expect(codesOf(await remove(path, name).expect(409))).toEqual(['job.notWritten']);
  await everything(path);
  // What came after the file would be lost: it is written anew.
  const { devices } = await bench.view(path);
  const edits = [
    {
      ...{ op: 'set', type: 'device', id: devices[0]?.id, field: 'note' },
      ...{ from: '', to: 'came later' },
    },
  ];
  await bench.call('post', `${path}/edits`).send({ edits, why: 'a note' }).expect(200);
  expect(codesOf(await remove(path, name).expect(409))).toEqual(['job.notWritten']);
  await everything(path);
  await remove(path, name).expect(204);
  await bench.call('get', `${path}/plan`).expect(404);
  const jobs = (await bench.call('get', '/jobs').expect(200)).body as readonly { name: string }[];
  expect(jobs.map((one) => one.name)).not.toContain(name);
});
