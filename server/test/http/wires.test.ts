import type { ErrorView, FieldView } from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// Several wires at once: each with threads of its own, and so no more of them than a machine bears.

const MOST = 8;

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('wires', 10);
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const post = (path: string, body: object = {}) => bench.call('post', path).send(body);
const field = async (path: string) =>
  (await bench.call('get', `${path}/wire`).expect(200)).body as FieldView;
const wires = async () => (await bench.call('get', '/wires').expect(200)).body as FieldView[];

test('eight jobs listen at once; a ninth is told so, and has the place of one that nobody listens on', async () => {
  const jobs: string[] = [];
  for (let i = 0; i <= MOST; i += 1) {
    const { id } = (await post('/jobs', { name: `Wire ${i}` }).expect(201)).body as { id: string };
    jobs.push(`/jobs/${id}`);
  }
  const [first = '', second = '', ...others] = jobs;
  const last = others.at(-1) ?? '';
  for (const job of jobs.slice(0, MOST)) {
    await post(`${job}/wire`, { kind: 'practice' }).expect(200);
    await post(`${job}/wire/listen`).expect(200);
  }
  expect(await wires()).toHaveLength(MOST);
  const refused = await post(`${last}/wire`, { kind: 'practice' }).expect(409);
  expect((refused.body as ErrorView).issues).toMatchObject([
    { code: 'wire.tooMany', facts: { count: MOST } },
  ]);
  // Whoever only looks at a job takes nobody's place.
  expect(await field(last)).toMatchObject({ source: null, runId: null });
  expect(await wires()).toHaveLength(MOST);

  await post(`${second}/wire/rest`).expect(200);
  await post(`${last}/wire`, { kind: 'practice' }).expect(200);
  await post(`${last}/wire/listen`).expect(200);
  expect(await field(second)).toMatchObject({ source: null, runId: null });
  expect((await field(first)).runId).not.toBeNull();
  expect((await wires()).map(({ jobId }) => `/jobs/${jobId}`)).not.toContain(second);
  await post('/silence').expect(204);
});

test('each practice site is its own: what is switched off in one stays on in the other', async () => {
  const [one, other] = await wires();
  const at = (of: FieldView | undefined) => `/jobs/${of?.jobId}/practice/cabinet`;
  const isOn = async (of: FieldView | undefined) => {
    const { body } = await bench.call('get', at(of)).expect(200);
    return (body as { devices: readonly { id: string; power: boolean }[] }).devices.map(
      ({ power }) => power,
    );
  };
  await post(at(other), { action: { kind: 'power-all', on: true } }).expect(200);
  await post(at(one), { action: { kind: 'power-all', on: false } }).expect(200);
  expect(new Set(await isOn(one))).toEqual(new Set([false]));
  expect(new Set(await isOn(other))).toEqual(new Set([true]));
});

test('what ends or forgets something is no trouble where no wire was ever chosen', async () => {
  const { id } = (await post('/jobs', { name: 'Never' }).expect(201)).body as { id: string };
  for (const act of ['rest', 'silence']) await post(`/jobs/${id}/wire/${act}`).expect(200);
  await post(`/jobs/${id}/wire/notices/read`, { code: 'page-lost', at: 1 }).expect(200);
  for (const act of ['proof', 'vigil', 'page'])
    await bench.call('delete', `/jobs/${id}/${act}`).expect(204);
  // What begins something says what is missing.
  const refused = await post(`/jobs/${id}/sweep`).expect(409);
  expect((refused.body as ErrorView).code).toBe('field.noWire');
});
