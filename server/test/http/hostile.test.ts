import { randomUUID } from 'node:crypto';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import request from 'supertest';
import type { ErrorView, FieldView } from '@ipsonomo/core/api';
import { cases } from '../../../core/test/cases';
import { ApiBench, type Method } from './api-bench';

// What is the caller's fault is refused in a sentence, and never told as ours; nothing of it is in the log.

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('hostile');
});
afterAll(() => bench.close());
afterEach(() => expect(bench.logged).toEqual([]));

const job = () => `/jobs/${bench.job.id}`;
const interfaceId = () => bench.job.devices[0]?.interfaces[0]?.id ?? '';

test.each<[string, Method, () => string, object | undefined, number]>([
  ['a % that stands for nothing', 'get', () => '/jobs/%ff/plan', undefined, 400],
  ['a revision that is no number', 'patch', () => `${job()}/revisions/abc`, { name: 'x' }, 404],
  ['a revision that is no whole one', 'patch', () => `${job()}/revisions/1.5`, { name: 'x' }, 404],
  ['edits since nothing', 'get', () => `${job()}/edits?since=x`, undefined, 400],
  ['a NUL in a name', 'post', () => '/jobs', { name: 'a\0b' }, 400],
  ['half a character in a name', 'post', () => '/jobs', { name: '\ud800' }, 400],
  [
    'a NUL in a reason',
    'post',
    () => `${job()}/interfaces/${interfaceId()}/said-set-back`,
    { reason: 'a\0' },
    400,
  ],
  [
    'an adapter that every object has',
    'post',
    () => `${job()}/wire`,
    { kind: 'live', adapter: '__proto__' },
    404,
  ],
  ['another one', 'post', () => `${job()}/wire`, { kind: 'live', adapter: 'constructor' }, 404],
  ...['plan', 'progress', 'round', 'vigil', 'edits?since=0', 'revisions', 'runs', 'proofs'].map(
    (part): [string, Method, () => string, undefined, number] => [
      `${part} of a job that is not`,
      ...(['get', () => `/jobs/${randomUUID()}/${part}`, undefined, 404] as const),
    ],
  ),
  ...['proof', 'vigil', 'page'].map((part): [string, Method, () => string, undefined, number] => [
    `the ${part} of a job that is not`,
    ...(['delete', () => `/jobs/${randomUUID()}/${part}`, undefined, 404] as const),
  ]),
])('%s', async (_what, method, path, body, status) => {
  const answer = await bench.call(method, path()).send(body);
  expect([answer.status, typeof (answer.body as ErrorView).code]).toEqual([status, 'string']);
});

test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty', 'id'])(
  'an edit of the field %s is none of a device',
  async (field) => {
    const edits = [
      { op: 'set', type: 'device', id: bench.job.devices[0]?.id, field, from: null, to: 1 },
    ];
    const answer = await bench.call('post', `${job()}/edits`).send({ edits, why: '' });
    expect(answer.status).toBe(422);
  },
);

test.each([
  ['an encoding nobody knows', { 'content-encoding': 'snappy' }, Buffer.from('{}')],
  ['a broken gzip', { 'content-encoding': 'gzip' }, gzipSync('{"name":"x"}').subarray(0, 12)],
  ['no gzip at all', { 'content-encoding': 'gzip' }, Buffer.from('hello')],
  [
    'a character set nobody knows',
    { 'content-type': 'application/json; charset=ebcdic' },
    Buffer.from('{}'),
  ],
  ['no JSON', {}, Buffer.from('{"name":')],
  ['a bomb', { 'content-encoding': 'gzip' }, gzipSync(Buffer.alloc(50_000_000, 0x20))],
])('a body with %s', async (_what, headers, body) => {
  const { status } = await bench
    .call('post', '/jobs')
    .set({ 'content-type': 'application/json', ...headers })
    .serialize((one: unknown) => one as string)
    .send(body as unknown as string);
  expect([400, 413, 415]).toContain(status);
});

test('an id has one spelling from the door on', async () => {
  const at = interfaceId();
  const path = `/jobs/${bench.job.id.toUpperCase()}/interfaces/${at}`;
  await bench.call('post', `${job()}/wire`).send({ kind: 'practice' }).expect(200);
  await bench.call('post', `/jobs/${bench.job.id.toUpperCase()}/wire/listen`).expect(200);
  const field = (await bench.call('get', `${job()}/wire`)).body as { jobId: string };
  expect(field.jobId).toBe(bench.job.id);
  const label = { mac: '02:4c:7a:1d:80:11', label: '02-4C-7A-1D-80-11' };
  const answers = async () =>
    ((await bench.call('get', `${job()}/wire`)).body as { answers: number }).answers;
  const before = await answers();
  await bench.call('post', `${path}/bind`).send(label).expect(204);
  expect(await answers()).toBe(before + 1);
  // The wire is told too: it would go on answering a MAC that nobody has bound any more.
  await bench.call('post', `${path}/unbind`).expect(204);
  expect(await answers()).toBe(before);
  const view = await bench.view(job());
  expect(view.devices[0]?.interfaces[0]?.mac).toBeNull();
  // Another job's name ends nothing of this one.
  const { id } = (await bench.call('post', '/jobs').send({ name: 'Other' })).body as { id: string };
  for (const part of ['proof', 'vigil', 'page'])
    await bench.call('delete', `/jobs/${id}/${part}`).expect(204);
  const still = (await bench.call('get', `${job()}/wire`)).body as FieldView;
  expect(still.runId).not.toBeNull();
  await bench.call('post', `${job()}/wire/rest`).expect(200);
});

test('R-TAKE: another person’s wire is taken only after a question, and both are told', async () => {
  await bench.call('post', `${job()}/wire`).send({ kind: 'practice' }).expect(200);
  await bench.call('post', `${job()}/wire/listen`).expect(200);
  const asked = () => bench.call('post', `${job()}/wire`, 'Ilse Brandt');
  const refused = await asked().send({ kind: 'practice' }).expect(409);
  expect((refused.body as ErrorView).issues).toMatchObject([
    { code: 'wire.inUse', facts: { person: 'Mara Quist', what: bench.job.name } },
  ]);
  expect((await bench.call('get', `${job()}/wire`)).body).toMatchObject({ jobId: bench.job.id });
  const taken = await asked().send({ kind: 'practice', evenSo: true }).expect(200);
  const [notice] = (taken.body as FieldView).notices;
  expect(notice).toMatchObject({
    ...{ code: 'wire-taken', stays: true },
    facts: { by: 'Ilse Brandt', from: 'Mara Quist' },
  });
  const left = await bench.call('post', `${job()}/wire/notices/read`).send(notice).expect(400);
  expect((left.body as ErrorView).code).toBe('body.invalid');
  const read = { code: notice?.code, at: notice?.at };
  const after = await bench.call('post', `${job()}/wire/notices/read`).send(read).expect(200);
  expect((after.body as FieldView).notices.filter(({ stays }) => stays)).toEqual([]);
});

test.each([
  [
    'a name that was made to lead here',
    { host: 'evil.example', origin: 'http://evil.example' },
    403,
  ],
  ['another site', { 'sec-fetch-site': 'cross-site' }, 400],
  ['a page of a device on this machine', { 'sec-fetch-site': 'same-site' }, 400],
  ['itself', { 'sec-fetch-site': 'same-origin' }, 200],
  ['an address', { host: '192.168.77.20:4780', origin: 'http://192.168.77.20:4780' }, 200],
])('from %s', async (_what, headers, status) => {
  const asked = request(bench.webUrl)
    .post(`/api${job()}/wire/rest`)
    .set('cookie', await bench.cookie());
  expect((await asked.set(headers)).status).toBe(status);
});

test('nothing from elsewhere runs in the page, and nobody else frames it', async () => {
  const { headers } = await bench.call('get', '/health');
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['x-powered-by']).toBeUndefined();
});

test('a person whose name cannot be written is written all the same', async () => {
  const { id } = (await bench.call('post', '/jobs').send({ name: 'Named' })).body as { id: string };
  const wanted = { name: 'Hall', network: '10.3.0.0/24', gateway: null, vlan: null, purpose: '' };
  await bench.call('post', `/jobs/${id}/subnets`, 'Ma\0ra').send(wanted).expect(201);
  const revisions = (await bench.call('get', `/jobs/${id}/revisions`)).body as { person: string }[];
  expect(revisions[0]?.person).toBe('Ma\\x00ra');
});

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route of the API, as it is registered: `['post', '/jobs/:job/edits']`. */
function routesOf(stack: readonly Layer[]): readonly (readonly [Method, string])[] {
  return stack.flatMap(({ route, handle }) => {
    if (!route) return handle.stack ? routesOf(handle.stack) : [];
    const methods = Object.keys(route.methods).filter((one): one is Method =>
      ['get', 'post', 'patch', 'delete'].includes(one),
    );
    return methods.map((method) => [method, route.path] as const);
  });
}

const STREAM = '/events';

/** What this process really keeps: after a full collection, when what was under way is over. */
async function heldMegabytes(): Promise<number> {
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as () => void;
  await new Promise((resolve) => setTimeout(resolve, 200));
  collect();
  const { heapUsed, external } = process.memoryUsage();
  return (heapUsed + external) / 1e6;
}

test(
  'hostile requests over all routes, seeded: none is our fault',
  async () => {
    const { router } = bench.running.app as unknown as {
      readonly router: { readonly stack: readonly Layer[] };
    };
    const routes = routesOf(router.stack).filter(
      ([, path]) => path !== STREAM && !path.includes('*'),
    );
    expect(routes.length).toBeGreaterThan(70);
    const device = bench.job.devices[0];
    const part = fc.oneof(
      fc.constantFrom('%00', '..', '%2e%2e', '__proto__', 'x'.repeat(3000), '-1', '1e9', '%ff'),
      fc.constantFrom(bench.job.id, device?.id ?? '', device?.interfaces[0]?.id ?? '', '1'),
      fc.uuid(),
    );
    const value: fc.Arbitrary<unknown> = fc.oneof(
      fc.jsonValue({ maxDepth: 2 }),
      fc.constantFrom('\0', '\ud800', '__proto__', 1e308, -1, [], {}),
      fc.constantFrom(
        bench.job.id,
        device?.id,
        'practice',
        'live',
        '02:00:5e:00:53:01',
        '10.0.0.1',
      ),
    );
    // Names that some schema knows, so that what is behind it is reached as well.
    const key = fc.constantFrom(
      ...['name', 'edits', 'jobId', 'kind', 'adapter', 'minutes', 'devices', 'why', 'scope', 'mac'],
      ...['label', 'reason', 'address', 'key', 'code', 'at', 'action', 'interfaceIds', '__proto__'],
    );
    const asked = fc.record({
      route: fc.constantFrom(...routes),
      parts: fc.array(part, { minLength: 6, maxLength: 6 }),
      query: fc.option(fc.record({ name: key, value: part }), { nil: undefined }),
      body: fc.oneof(value, fc.dictionary(key, value, { maxKeys: 5 })),
      type: fc.constantFrom(
        'application/json',
        'application/json',
        'text/plain',
        'application/octet-stream',
      ),
    });
    const count = cases(400);
    const before = await heldMegabytes();
    for (const { route, parts, query, body, type } of fc.sample(asked, {
      ...{ numRuns: count, seed: 9110 },
    })) {
      const [method, pattern] = route;
      let at = 0;
      const filled = pattern.replace(/:\w+/g, () => parts[(at += 1) % parts.length] ?? '');
      const path = query ? `${filled}?${query.name}=${query.value}` : filled;
      const call = bench.call(method, path);
      const { status } = await (method === 'get'
        ? call
        : call.type(type).send(JSON.stringify(body)));
      expect([method, path, body, status < 500 || status === 503]).toEqual([
        method,
        path,
        body,
        true,
      ]);
    }
    const more = (await heldMegabytes()) - before;
    console.log(`${count} hostile requests: ${more.toFixed(1)} MB more are held`);
    expect(more).toBeLessThan(50);
  },
  120_000 * cases(1),
);
