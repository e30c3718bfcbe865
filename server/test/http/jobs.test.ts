import type { ErrorView, FieldView, JobSummary, PlanView } from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// A job has a name that no other has, and is put away without losing anything.

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('jobs', 10);
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

let made = 0;
async function newJob(): Promise<{ readonly id: string; readonly name: string }> {
  const name = `Line ${(made += 1)}`;
  const { body } = await bench.call('post', '/jobs').send({ name }).expect(201);
  return { id: (body as { id: string }).id, name };
}

const rename = (id: string, name: string) => bench.call('patch', `/jobs/${id}`).send({ name });
const codeOf = (answer: { readonly body: unknown }) => (answer.body as ErrorView).code;
const read = async <T>(path: string) => (await bench.call('get', path).expect(200)).body as T;
const jobs = () => read<readonly JobSummary[]>('/jobs');

test('a job is given another name, and keeps its own where that is taken or none', async () => {
  const [job, other] = [await newJob(), await newJob()];
  await rename(job.id, `${job.name} B `).expect(204);
  expect((await read<PlanView>(`/jobs/${job.id}/plan`)).name).toBe(`${job.name} B`);
  expect((await jobs()).find(({ id }) => id === job.id)?.name).toBe(`${job.name} B`);
  expect(codeOf(await rename(job.id, other.name).expect(409))).toBe('job.taken');
  expect(codeOf(await rename(job.id, '  ').expect(422))).toBe('name.empty');
  // Its own name again is no clash.
  await rename(job.id, `${job.name} B`).expect(204);
});

test('a job that is put away ends its wire, and comes back as it was', async () => {
  const { id } = await newJob();
  const archive = (archived: boolean) =>
    bench.call('post', `/jobs/${id}/archive`).send({ archived }).expect(204);
  await bench.call('post', `/jobs/${id}/wire`).send({ kind: 'practice' }).expect(200);
  await bench.call('post', `/jobs/${id}/wire/listen`).send({}).expect(200);
  await archive(true);
  const isArchived = async () => (await jobs()).find((one) => one.id === id)?.archived;
  expect(await isArchived()).toBe(true);
  expect(await read<FieldView>(`/jobs/${id}/wire`)).toMatchObject({ source: null, runId: null });
  await archive(false);
  expect(await isArchived()).toBe(false);
});
