import { createHash, generateKeyPairSync, sign } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import type {
  BundleTaken,
  ErrorView,
  EvidenceView,
  JoinedView,
  PlanView,
} from '@ipsonomo/core/api';
import { ApiBench, asBytes, device } from './api-bench';

// R-UNITE: two installations that were apart, each with a database of its own, are made one again by what a stick carries.

let hall: ApiBench;
let tower: ApiBench;
beforeAll(async () => {
  [hall, tower] = await Promise.all([ApiBench.open('bundle_hall'), ApiBench.open('bundle_tower')]);
}, 60_000);
afterAll(async () => {
  await Promise.all([hall.close(), tower.close()]);
  expect([...hall.logged, ...tower.logged]).toEqual([]);
});

const written = async (from: ApiBench, path: string): Promise<Buffer> => {
  const answer = await from
    .call('get', `${path}/bundle.gz`)
    .buffer(true)
    .parse(asBytes as never);
  expect(answer.status).toBe(200);
  return answer.body as Buffer;
};
const taking = (at: ApiBench, bytes: Buffer, path = '/bundles') =>
  at
    .call('post', `${path.replace(/^\/jobs\/.*/, `${path}/bundle`)}?name=a.bundle.gz`)
    .set('content-type', 'application/octet-stream')
    .send(bytes);
const take = async (at: ApiBench, bytes: Buffer, path?: string): Promise<BundleTaken> =>
  (await taking(at, bytes, path).expect(200)).body as BundleTaken;
const bring = async (from: ApiBench, to: ApiBench, path: string): Promise<BundleTaken> =>
  take(to, await written(from, path), path);

const plan = async (at: ApiBench, path: string) =>
  (await at.call('get', `${path}/plan`).expect(200)).body as PlanView;
/** In no order, as things stand in the order in which they came. */
const plain = async (at: ApiBench, path: string) =>
  Object.entries((await plan(at, path)).things).map(([type, all]) => [
    type,
    all.map((one) => JSON.stringify(Object.entries(one).sort())).sort(),
  ]);
const joined = async (at: ApiBench, path: string) =>
  (await at.call('get', `${path}/joined`).expect(200)).body as JoinedView;
const evidence = async (at: ApiBench, path: string, id: string) =>
  ((await at.call('get', `${path}/interfaces/${id}/evidence`).expect(200)).body as EvidenceView[])
    .map(({ kind, at: when, person, mac }) => [kind, when, person, mac].join(' '))
    .sort();

interface Job {
  readonly path: string;
  readonly devices: readonly string[];
  readonly interfaces: readonly string[];
}

/** A job of the hall's, as it is, at both. */
async function atBoth(name: string): Promise<Job> {
  const { path, subnetId } = await hall.jobOf(`${name} ${Date.now()}`);
  const named = (title: string, address: string) =>
    device({ title, name: title.toLowerCase(), subnetId, address });
  await hall.add(path, named('One', '10.9.0.21'), named('Two', '10.9.0.22'));
  const made = await take(tower, await written(hall, path));
  expect(made).toMatchObject({ isNew: true, from: 'Hall 1', clashes: 0 });
  const { devices } = await hall.view(path);
  return {
    path,
    devices: devices.map(({ id }) => id),
    interfaces: devices.map((one) => one.interfaces[0]?.id ?? ''),
  };
}

async function set(at: ApiBench, path: string, id: string, field: string, to: string) {
  const { things } = await plan(at, path);
  const from = things.device.find((one) => one['id'] === id)?.[field];
  const edits = [{ op: 'set', type: 'device', id, field, from, to }];
  await at.call('post', `${path}/edits`).send({ edits, why: '' }).expect(200);
}

const bind = (at: ApiBench, path: string, id: string, mac: string) =>
  at.call('post', `${path}/interfaces/${id}/bind`).send({ mac, label: mac }).expect(204);

test('a job that is not there begins as it was; twice changes nothing', async () => {
  const { path, interfaces } = await atBoth('Begun');
  expect(await plain(tower, path)).toEqual(await plain(hall, path));
  await bind(hall, path, interfaces[0] ?? '', '02:00:5e:00:53:31');
  expect(await bring(hall, tower, path)).toMatchObject({ isNew: false, revisions: 1, evidence: 1 });
  expect(await evidence(tower, path, interfaces[0] ?? '')).toEqual(
    await evidence(hall, path, interfaces[0] ?? ''),
  );
  const before = await plan(tower, path);
  for (let again = 0; again < 2; again += 1)
    expect(await bring(hall, tower, path)).toMatchObject({ revisions: 0, evidence: 0 });
  expect(await plan(tower, path)).toEqual(before);
});

test('a week apart: what each changed is there, the same field is told, evidence is united', async () => {
  const { path, devices, interfaces } = await atBoth('Apart');
  const [one = '', two = ''] = devices;
  await set(hall, path, one, 'title', 'One of the hall');
  await set(tower, path, one, 'cabinet', 'T1');
  await set(hall, path, two, 'title', 'Two of the hall');
  await set(tower, path, two, 'title', 'Two of the tower');
  await bind(hall, path, interfaces[0] ?? '', '02:00:5e:00:53:41');
  await bind(tower, path, interfaces[1] ?? '', '02:00:5e:00:53:42');

  expect(await bring(hall, tower, path)).toMatchObject({ revisions: 3, evidence: 1, clashes: 1 });
  expect(await bring(tower, hall, path)).toMatchObject({ revisions: 3, evidence: 1, clashes: 1 });
  expect(await plain(tower, path)).toEqual(await plain(hall, path));
  const { things } = await plan(hall, path);
  expect(things.device.find(({ id }) => id === one)).toMatchObject({
    ...{ title: 'One of the hall', cabinet: 'T1' },
  });
  for (const id of interfaces)
    expect(await evidence(tower, path, id)).toEqual(await evidence(hall, path, id));
  const [at, there] = [await joined(hall, path), await joined(tower, path)];
  expect(at.clashes).toEqual(there.clashes);
  expect(at.clashes).toMatchObject([
    {
      ...{ type: 'device', field: 'title', title: 'Two of the tower' },
      ...{ stands: { value: 'Two of the tower' }, lost: { value: 'Two of the hall' } },
    },
  ]);
  expect(at.taken).toHaveLength(1);

  // Decided at one, it is decided at the other.
  await set(tower, path, two, 'title', 'Two of the hall');
  await bring(tower, hall, path);
  for (const bench of [hall, tower]) expect((await joined(bench, path)).clashes).toEqual([]);
  expect(await plain(tower, path)).toEqual(await plain(hall, path));
});

test('what stays as it is, is said to stay, and told no more', async () => {
  const { path, devices } = await atBoth('Stays');
  await set(hall, path, devices[0] ?? '', 'title', 'Hall');
  await set(tower, path, devices[0] ?? '', 'title', 'Tower');
  await bring(tower, hall, path);
  const [clash] = (await joined(hall, path)).clashes;
  const { type, id, field, stands, lost } = clash ?? ({} as never);
  const said = { type, id, field, stands: stands.revision, lost: lost.revision };
  const answer = await hall.call('post', `${path}/joined/settled`).send(said).expect(200);
  expect((answer.body as JoinedView).clashes).toEqual([]);
});

test('in a chain of three it comes to the same', async () => {
  const shed = await ApiBench.open('bundle_shed');
  const { path, devices } = await atBoth('Chain');
  const [one = '', two = ''] = devices;
  await take(shed, await written(tower, path));
  await set(hall, path, one, 'title', 'h');
  await set(tower, path, one, 'cabinet', 't');
  await set(shed, path, two, 'title', 's');
  for (const [from, to] of [
    ...([
      [shed, tower],
      [tower, hall],
      [hall, tower],
      [tower, shed],
    ] as const),
  ])
    await bring(from, to, path);
  const all = await Promise.all([hall, tower, shed].map((at) => plain(at, path)));
  expect(all[1]).toEqual(all[0]);
  expect(all[2]).toEqual(all[0]);
  await shed.close();
});

/** Lines of a bundle, changed and sealed anew by somebody with a key of their own. */
function forged(bytes: Buffer, change: (lines: string[]) => string[], isSealed = true): Buffer {
  const lines = change(gunzipSync(bytes).toString().trimEnd().split('\n').slice(0, -1));
  const text = lines.map((line) => `${line}\n`).join('');
  const sha256 = createHash('sha256').update(text).digest('hex');
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  const end = {
    ...{
      end: lines.length,
      sha256: isSealed ? sha256 : sha256.replace(/./, (first) => (first === '0' ? '1' : '0')),
    },
    signature: sign(null, Buffer.from(sha256), privateKey).toString('base64'),
    publicKey: publicKey.export({ type: 'spki', format: 'pem' }),
  };
  return gzipSync(`${text}${JSON.stringify(end)}\n`);
}
const inHead =
  (change: (head: { version: number; job: { name: string } }) => object) =>
  ([head = '{}', ...lines]: string[]) => [
    JSON.stringify(change(JSON.parse(head) as never)),
    ...lines,
  ];

test.each<readonly [string, (bytes: Buffer) => Buffer]>([
  ['bundle.cut', (bytes) => bytes.subarray(0, Math.floor(bytes.length / 2))],
  ['bundle.cut', (bytes) => gzipSync(`${gunzipSync(bytes).toString().split('\n')[0] ?? ''}\n`)],
  ['bundle.changed', (bytes) => forged(bytes, (lines) => lines, false)],
  ['bundle.changed', (bytes) => gzipSync(gunzipSync(bytes).toString().replace('"One"', '"0ne"'))],
  [
    'bundle.newer',
    (bytes) =>
      forged(
        bytes,
        inHead((head) => ({ ...head, version: 2 })),
      ),
  ],
  ['bundle.unreadable', () => Buffer.from('a list of devices')],
  ['bundle.cut', () => gzipSync('a list of devices')],
  ['bundle.unreadable', () => gzipSync('{"format":"something else"}\n{}\n')],
  [
    'bundle.chain',
    (bytes) =>
      forged(bytes, (lines) =>
        lines.map((line) => (line.startsWith('{"link"') ? line.replace('Mara', 'Vera') : line)),
      ),
  ],
])('%s: nothing of it is taken', async (code, spoil) => {
  const { path, interfaces } = await atBoth('Spoilt');
  await bind(hall, path, interfaces[0] ?? '', '02:00:5e:00:53:51');
  const before = await plan(tower, path);
  const refused = await taking(tower, spoil(await written(hall, path)), path);
  expect([refused.status >= 400, (refused.body as ErrorView).code]).toEqual([true, code]);
  expect(await plan(tower, path)).toEqual(before);
  expect((await joined(tower, path)).taken).toHaveLength(1);
});

test('a laptop whose past is another than it told before is not believed', async () => {
  const { path, interfaces } = await atBoth('Past');
  await bind(hall, path, interfaces[0] ?? '', '02:00:5e:00:53:61');
  const first = await written(hall, path);
  await take(tower, first, path);
  // A database that was put back and went on otherwise: the same place, another piece, sealed rightly.
  const other = await ApiBench.open('bundle_other');
  await take(other, first);
  await other.sql(
    'alter table evidence disable trigger user; delete from evidence; alter table evidence enable trigger user',
  );
  await bind(other, path, interfaces[1] ?? '', '02:00:5e:00:53:62');
  const { server } = JSON.parse(gunzipSync(first).toString().split('\n')[0] ?? '') as {
    server: object;
  };
  const told = forged(
    await written(other, path),
    inHead((head) => ({ ...head, server })),
  );
  const refused = await taking(tower, told, path).expect(409);
  expect((refused.body as ErrorView).code).toBe('bundle.history');
  await other.close();
});

test('a bundle of another job, and a rehearsal, are refused', async () => {
  const one = await atBoth('This');
  const other = await atBoth('Another');
  const refused = await taking(tower, await written(hall, other.path), one.path).expect(409);
  expect((refused.body as ErrorView).issues[0]).toMatchObject({ code: 'bundle.otherJob' });
  const made = await hall
    .call('post', `${one.path}/rehearsals`)
    .send({ wish: { kind: 'chosen', which: [] } });
  const { id } = made.body as { id: string };
  const rehearsal = await hall.call('get', `/jobs/${id}/bundle.gz`);
  expect((rehearsal.body as ErrorView).code).toBe('bundle.rehearsal');
});
