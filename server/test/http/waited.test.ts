import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { WAITED_HEADERS } from '@ipsonomo/contract';
import type { EditedView, EvidenceView, PlanView, RevisionView } from '@ipsonomo/core/api';
import { ApiBench, device } from './api-bench';

// R-WAIT: acts that a browser kept and sends later, or once more: each is done once.

const HOUR = 3_600_000;

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('waited');
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

interface When {
  readonly key?: string;
  /** Milliseconds before it is sent. */
  readonly ago?: number;
  /** By how much the browser's clock is wrong. */
  readonly off?: number;
}

const headersOf = ({ key = randomUUID(), ago = 0, off = 0 }: When) => ({
  [WAITED_HEADERS.key]: key,
  [WAITED_HEADERS.doneAt]: String(Date.now() + off - ago),
  [WAITED_HEADERS.sentAt]: String(Date.now() + off),
  [WAITED_HEADERS.place]: '7',
});

const sent = (path: string, when: When, body: object) =>
  bench.call('post', path, 'Mara Quist').set(headersOf(when)).send(body);

async function jobWithDevice(name: string) {
  const { path, subnetId } = await bench.jobOf(name);
  await bench.add(path, device({ subnetId, address: '10.9.0.100', name: 'vb-100' }));
  const read = async () => (await bench.call('get', `${path}/plan`).expect(200)).body as PlanView;
  const { things } = await read();
  const revisions = async () =>
    (await bench.call('get', `${path}/revisions`).expect(200)).body as RevisionView[];
  const at = `${path}/interfaces/${things.interface[0]?.id}`;
  const evidence = async () =>
    (await bench.call('get', `${at}/evidence`).expect(200)).body as EvidenceView[];
  return { path, at, id: things.device[0]?.id, read, revisions, evidence };
}

const titled = (id: string | undefined, from: string, to: string) => ({
  edits: [{ op: 'set', type: 'device', id, field: 'title', from, to }],
  why: 'read in the shaft',
});

test('an edit that is sent five times, two of them at once, is one revision', async () => {
  const { path, id, read, revisions } = await jobWithDevice('Sent five times');
  const key = randomUUID();
  const body = titled(id, 'Valve block', 'Sludge valves');
  const before = (await revisions()).length;
  const send = async () =>
    (await sent(`${path}/edits`, { key }, body).expect(200)).body as EditedView;
  const first = await send();
  const others = [...(await Promise.all([send(), send()])), await send(), await send()];
  for (const one of others) expect(one).toEqual(first);
  expect(await revisions()).toHaveLength(before + 1);
  expect((await read()).things.device[0]?.['title']).toBe('Sludge valves');
});

test('what was refused is not done, and is done when it is sent again and can be', async () => {
  const { path, id, read } = await jobWithDevice('Refused first');
  const key = randomUUID();
  const body = titled(id, 'Weir gate', 'Sludge gate');
  await sent(`${path}/edits`, { key }, body).expect(409);
  await bench
    .call('post', `${path}/edits`)
    .send(titled(id, 'Valve block', 'Weir gate'))
    .expect(200);
  await sent(`${path}/edits`, { key }, body).expect(200);
  expect((await read()).things.device[0]?.['title']).toBe('Sludge gate');
});

test.each([
  ['bind', { mac: '02:4c:7a:40:51:62', label: '' }, 'bound'],
  ['said-kept', {}, 'said-kept'],
  ['said-given', {}, 'said-given'],
  ['said-set-back', { reason: 'by its key' }, 'said-set-back'],
  ['read-off', { from: 'display', text: '10.9.0.100' }, 'read-off'],
  ['said-written', { place: 'hosts', whose: 'IT', value: '10.9.0.100', is: 'yes' }, 'said-written'],
])(
  '%s, kept for three hours and sent twice, is one piece of evidence with its own time',
  async (act, body, kind) => {
    const { at, evidence } = await jobWithDevice(`Twice ${act}`);
    const when = { key: randomUUID(), ago: 3 * HOUR, off: -24 * HOUR };
    await sent(`${at}/${act}`, when, body).expect(204);
    await sent(`${at}/${act}`, when, body).expect(204);
    const found = (await evidence()).filter((one) => one.kind === kind);
    expect(found).toHaveLength(1);
    // A clock that is a day wrong makes no difference to how long ago it was.
    const doneAt = Number((found[0]?.facts as { readonly doneAt?: number }).doneAt);
    expect(Math.abs(Date.now() - 3 * HOUR - doneAt)).toBeLessThan(60_000);
  },
);

test('a number of one job is nothing in another', async () => {
  const key = randomUUID();
  const [one, other] = [await jobWithDevice('Number here'), await jobWithDevice('Number there')];
  for (const { path, id } of [one, other])
    await sent(`${path}/edits`, { key }, titled(id, 'Valve block', 'Sludge valves')).expect(200);
  expect((await other.read()).things.device[0]?.['title']).toBe('Sludge valves');
});

test('what is done as it is sent says no time of its own', async () => {
  const { at, evidence } = await jobWithDevice('At once');
  await sent(`${at}/said-kept`, {}, {}).expect(204);
  expect((await evidence())[0]?.facts).not.toHaveProperty('doneAt');
});

test.each([
  [WAITED_HEADERS.key, 'seven'],
  [WAITED_HEADERS.doneAt, 'yesterday'],
  [WAITED_HEADERS.place, '-1'],
])('%s: %s is refused by its name, and nothing is done', async (name, value) => {
  const { at, evidence } = await jobWithDevice(`Bad ${name}`);
  const answer = await sent(`${at}/said-kept`, {}, {}).set(name, value).expect(400);
  expect(answer.body.issues[0]).toMatchObject({ code: 'body.invalid', where: name });
  expect(await evidence()).toEqual([]);
});

test('what another account did is refused with who did it, until it is sent in one’s own name', async () => {
  const { at, evidence } = await jobWithDevice('Of another');
  const cookie = await bench.cookie();
  const sendAs = (more: object) =>
    request(bench.webUrl)
      .post(`/api${at}/said-kept`)
      .set({ ...headersOf({}), cookie, 'x-person': 'Ilse%20Brandt', ...more })
      .send({});
  const answer = await sendAs({ [WAITED_HEADERS.account]: randomUUID() }).expect(409);
  expect(answer.body.issues[0]).toMatchObject({
    ...{ code: 'waiting.ofAnother', facts: { person: 'Ilse Brandt' } },
  });
  expect(await evidence()).toEqual([]);
  await sendAs({}).expect(204);
  expect(await evidence()).toHaveLength(1);
});
