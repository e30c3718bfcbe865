import type { FieldView, JobView, ProofDetailView, ProofView, VigilView } from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// Runs of proofs over the real practice site and the real database.

let bench: ApiBench;
let job: JobView;

beforeAll(async () => {
  bench = await ApiBench.open('proofs', 10);
  ({ job } = bench);
  await bench.call('post', `${path()}/wire`).send({ kind: 'practice' }).expect(200);
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const path = () => `/jobs/${job.id}`;
const begin = (scope: object, perSecond = 1000) =>
  bench.call('post', `${path()}/proofs`, 'Mara Quist').send({ scope, perSecond });
const field = async () => (await bench.call('get', `${path()}/wire`)).body as FieldView;
const one = async (id: string) =>
  (await bench.call('get', `${path()}/proofs/${id}`).expect(200)).body as ProofDetailView;

/** Once the run is over and its end is in the database. */
async function ended(id: string): Promise<ProofDetailView> {
  for (let looks = 0; looks < 200; looks += 1) {
    const proof = await one(id);
    const seen = proof.proven + proof.contradicted + proof.silent;
    if (proof.endedAt !== null && (proof.how !== 'done' || seen === proof.total)) return proof;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the run does not end');
}

test('a run over a cabinet is kept: who, when, with which plan, every value, and strangers', async () => {
  const cabinet = 'FH1';
  const planned = job.devices.filter((device) => device.cabinet === cabinet);
  const { id } = (await begin({ kind: 'cabinet', cabinet }).expect(201)).body as { id: string };
  expect((await field()).proof).toMatchObject({ proofId: id, total: planned.length });
  const proof = await ended(id);
  expect(proof).toMatchObject({
    ...{ scope: 'cabinet FH1', person: 'Mara Quist', source: 'practice', how: 'done' },
    ...{ revision: job.revision, total: planned.length },
  });
  // The MAC of nobody is bound yet: whatever answers is no proof.
  expect(proof.results.map(({ kind }) => kind)).not.toContain('found-as-planned');
  expect(proof.strangers.map(({ mac }) => mac)).toContain('02:4c:7a:10:00:77');
  const list = (await bench.call('get', `${path()}/proofs`).expect(200)).body as ProofView[];
  expect(list).toHaveLength(1);
  expect(list[0]).toMatchObject({ id, strangers: proof.strangers.length });
  const again = await bench.call('post', `${path()}/proofs/${id}/go-on`).send({ perSecond: 500 });
  expect([again.status, again.body.code]).toEqual([422, 'proof.nothingLeft']);
}, 60_000);

test('stopped, it says so, and goes on with the rest', async () => {
  const { id } = (await begin({ kind: 'job' }, 20).expect(201)).body as { id: string };
  await bench.call('delete', `${path()}/proof`).expect(204);
  const stopped = await ended(id);
  expect(stopped).toMatchObject({ how: 'stopped', proven: 0, contradicted: 0, silent: 0 });
  await bench.call('post', `${path()}/proofs/${id}/go-on`).send({ perSecond: 1000 }).expect(204);
  expect((await one(id)).endedAt).toBeNull();
  const done = await ended(id);
  expect([done.how, done.contradicted + done.silent]).toEqual(['done', done.total]);
}, 90_000);

test('a vigil: nothing before it, its beats while it goes on, and all of them as a table', async () => {
  const vigil = `${path()}/vigil`;
  expect((await bench.call('get', vigil).expect(200)).body).toEqual({
    ...{ state: null, buckets: 0, rows: [] },
  });
  expect((await bench.call('get', `${vigil}.csv`)).body.code).toBe('vigil.none');
  const wish = { scope: { kind: 'cabinet', cabinet: 'FH1' }, everySeconds: 1, minutes: 5 };
  await bench.call('post', vigil).send(wish).expect(202);
  await new Promise((resolve) => setTimeout(resolve, 4500));
  const view = (await bench.call('get', vigil)).body as VigilView;
  expect(view.state).toMatchObject({ beats: 300, how: null });
  expect(view.rows).toHaveLength(1);
  expect(view.rows[0]?.summary.asked).toBeGreaterThan(0);
  await bench.call('delete', vigil).expect(204);
  const csv = (await bench.call('get', `${vigil}.csv`).expect(200)).text.split('\r\n');
  expect(csv[0]).toBe('time,"Controller, filter hall 172.22.40.10"');
  expect(csv[1]).toMatch(/^\d{4}-\d\d-\d\dT[^,]+,(lost|[\d.]*)$/);
  expect(((await bench.call('get', vigil)).body as VigilView).state?.how).toBe('stopped');
}, 30_000);

test('a run that the server was restarted in is cut off, and says so', async () => {
  const run = { job_id: job.id, run_id: null, source: 'practice', person: 'Mara', revision: 1 };
  const store = bench.store.proofs;
  const { id } = await store.add({ ...run, scope: 'whole job', interface_ids: ['a', 'b'] });
  await store.endLeft();
  expect(await one(id)).toMatchObject({ how: 'cut-off', total: 2, proven: 0 });
  await bench.call('post', `${path()}/proofs/${id}/go-on`).send({ perSecond: 100 }).expect(422);
});

test.each<[string, object, number, string]>([
  ['no number', { unit: 1, written: 'many', counting: 'from-0' }, 422, 'entered.number'],
  ['no register', { unit: 1, written: '0', counting: 'from-1' }, 422, 'register.range'],
  ['no such unit', { unit: 300, written: '1', counting: 'from-1' }, 400, 'body.invalid'],
])('a register is refused: %s', async (_name, wish, status, code) => {
  const at = job.devices[0]?.interfaces[0]?.id ?? '';
  const answer = await bench.call('post', `${path()}/interfaces/${at}/read-register`).send(wish);
  expect([answer.status, answer.body.code]).toEqual([status, code]);
});

test.each<[string, object, number, string]>([
  ['too fast', { scope: { kind: 'job' }, perSecond: 5000 }, 400, 'body.invalid'],
  ['no such kind of place', { scope: { kind: 'moon' }, perSecond: 100 }, 400, 'body.invalid'],
  [
    'nobody there',
    { scope: { kind: 'cabinet', cabinet: 'ZZ' }, perSecond: 100 },
    422,
    'proof.nothing',
  ],
])('refused: %s', async (_name, wish, status, code) => {
  const answer = await bench.call('post', `${path()}/proofs`).send(wish);
  expect([answer.status, answer.body.code]).toEqual([status, code]);
});
