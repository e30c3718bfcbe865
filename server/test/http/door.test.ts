import { request as httpRequest } from 'node:http';
import request from 'supertest';
import type { KeysView, NewKeyView } from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// R-DOOR: nobody who was not let in gets further than the door.

let bench: ApiBench;
let url: string;
beforeAll(async () => {
  bench = await ApiBench.open('door');
  url = bench.webUrl;
});
afterAll(() => bench.close());

const newKey = async () => ((await bench.call('post', '/keys').expect(201)).body as NewKeyView).key;
const enter = (key: string) => request(url).post('/api/door').send({ key });
const keysNow = async () => (await bench.call('get', '/keys')).body as KeysView;

test.each([
  ['get', '/api/jobs'],
  ['get', '/api/health'],
  ['get', '/api/state'],
  ['get', '/api/events'],
  ['get', '/api/keys'],
  ['post', '/api/keys'],
  ['post', '/api/silence'],
  ['get', '/api/none'],
  ['get', '/api/%ff'],
] as const)('without a key %s %s is not answered', async (method, path) => {
  const answer = await request(url)[method](path);
  expect([400, 401]).toContain(answer.status);
  expect(answer.text).not.toContain(bench.job.id);
});

test.each([
  ['as it was made', (key: string) => key],
  [
    'in small letters, with dashes and spaces',
    (key: string) => key.toLowerCase().replace(/(.{4})/g, '$1- '),
  ],
  [
    'with the letters that are taken for digits',
    (key: string) => key.replace(/0/g, 'o').replace(/1/g, 'L'),
  ],
])('a key lets in %s, and the cookie is for this server alone', async (_how, typed) => {
  const answer = await enter(typed(await newKey())).expect(204);
  const set = String(answer.headers['set-cookie']);
  expect(set).toMatch(/^ipsonomo-\d+=[\w-]{43}; .*Path=\/; HttpOnly; SameSite=Strict$/);
  await request(url)
    .get('/api/jobs')
    .set('cookie', set.split(';')[0] ?? '')
    .expect(200);
});

test.each([
  ['none', {}],
  ['an empty one', { key: '' }],
  ['another', { key: 'A'.repeat(20) }],
  ['one that every object has', { key: '__proto__' }],
  ['a number', { key: 7 }],
  ['a long one', { key: 'A'.repeat(1000) }],
])('%s is no key', async (_what, body) => {
  const answer = await request(url).post('/api/door').send(body);
  expect([400, 403, 413]).toContain(answer.status);
  expect(answer.headers['set-cookie']).toBeUndefined();
});

test('what was taken back opens nothing any more, and its stream is closed', async () => {
  const own = await bench.cookie();
  const ended = new Promise<void>((resolve, reject) => {
    const asked = httpRequest(`${url}/api/events`, { headers: { cookie: own } }, (answer) => {
      answer.resume().on('end', resolve);
      void request(url).get('/api/keys').set('cookie', own).then(takeBackOwn, reject);
    });
    asked.on('error', reject).end();
  });
  const takeBackOwn = ({ body }: { readonly body: KeysView }) => {
    const id = body.browsers.find(({ isOwn }) => isOwn)?.id;
    return bench.call('delete', `/keys/${id}`).expect(204);
  };
  await ended;
  await request(url).get('/api/jobs').set('cookie', own).expect(401);
  const key = await newKey();
  const made = (await keysNow()).invitations.at(-1);
  await bench.call('delete', `/keys/${made?.id}`).expect(204);
  await enter(key).expect(403);
  await bench.call('delete', `/keys/${made?.id}`).expect(404);
});

test('the name of its person stands beside a browser, and neither keys nor cookies are kept', async () => {
  const own = await bench.cookie();
  const key = await newKey();
  const person = encodeURIComponent('Ilse Brandt');
  await request(url).post('/api/jobs').set('cookie', own).set('x-person', person).expect(400);
  expect((await keysNow()).browsers.map((one) => one.person)).toContain('Ilse Brandt');
  const kept = JSON.stringify([
    await bench.store.door.browsers(),
    await bench.store.door.invitations(),
  ]);
  const secret = own.split('=')[1] ?? '';
  for (const text of [secret, Buffer.from(secret).toString('base64'), key])
    expect(kept).not.toContain(text);
});

test('a connection that closed before it was looked at is not the machine itself', async () => {
  const before = (await keysNow()).invitations.length;
  for (let i = 0; i < 20; i += 1)
    await new Promise<void>((resolve) => {
      const asked = httpRequest(`${url}/api/keys`, { method: 'POST' });
      asked.on('error', () => resolve());
      asked.end(() => setImmediate(() => asked.destroy(new Error('gone'))));
    });
  await enter('0'.repeat(20)).expect(403);
  expect((await keysNow()).invitations.length).toBe(before);
});

test('whoever tries key after key is made to wait, and is told how long', async () => {
  const answers = await Promise.all(Array.from({ length: 180 }, () => enter('B'.repeat(20))));
  const slow = answers.filter(({ status }) => status === 429);
  expect(slow.length).toBeGreaterThan(0);
  expect(Number(slow[0]?.headers['retry-after'])).toBeGreaterThan(0);
});
