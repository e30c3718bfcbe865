import { createHash, randomUUID } from 'node:crypto';
import type { ErrorView, EvidenceView } from '@ipsonomo/core/api';
import { ApiBench, asBytes, device } from './api-bench';

// What a person notes of a device and photographs: evidence, once, and never anything that a browser would run.

let bench: ApiBench;
let path: string;
let at: string;
beforeAll(async () => {
  bench = await ApiBench.open('notes');
  const job = await bench.jobOf('Noted');
  ({ path } = job);
  await bench.add(path, device({ subnetId: job.subnetId, address: '10.9.0.20' }));
  const { devices } = await bench.view(path);
  at = `${path}/interfaces/${devices[0]?.interfaces[0]?.id ?? ''}`;
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

/** The first bytes of a JPEG (JFIF 1.02), and anything behind them. */
const JPEG = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 2]);
const base64 = (...parts: readonly Buffer[]) => Buffer.concat(parts).toString('base64');
const note = (body: object) => bench.call('post', `${at}/said-note`).send(body);
const noted = async () =>
  ((await bench.call('get', `${at}/evidence`).expect(200)).body as EvidenceView[]).filter(
    ({ kind }) => kind === 'said-note',
  );

test('a note with a photo is evidence; the photo comes back as it was, and for good', async () => {
  await note({ text: '  Its lamp is cracked ', photo: base64(JPEG) }).expect(204);
  const id = createHash('sha256').update(JPEG).digest('hex');
  const [kept] = await noted();
  expect(kept).toMatchObject({
    ...{ person: 'Mara Quist', facts: { text: 'Its lamp is cracked', photo: id } },
  });
  const answer = await bench
    .call('get', `${path}/photos/${id}`)
    .buffer(true)
    .parse(asBytes as never)
    .expect(200);
  expect(answer.body as Buffer).toEqual(JPEG);
  expect(answer.headers).toMatchObject({
    ...{ 'content-type': 'image/jpeg', 'x-content-type-options': 'nosniff' },
    'cache-control': expect.stringContaining('immutable') as string,
  });
});

test('what a browser kept for want of a network is there once, however often it is sent', async () => {
  const before = (await noted()).length;
  const now = Date.now();
  const headers = {
    ...{ 'idempotency-key': randomUUID(), 'x-done-at': String(now - 3_600_000) },
    ...{ 'x-sent-at': String(now), 'x-place': '1' },
  };
  for (let again = 0; again < 3; again += 1)
    await note({ text: 'From the shaft', photo: base64(JPEG) })
      .set(headers)
      .expect(204);
  const all = await noted();
  expect(all).toHaveLength(before + 1);
  expect(all[0]?.facts).toMatchObject({ text: 'From the shaft' });
});

test.each([
  ['note.empty', { text: ' ' }],
  ['photo.unreadable', { text: '', photo: Buffer.from('<script>').toString('base64') }],
  ['photo.unreadable', { text: 'a', photo: '' }],
  ['photo.large', { text: '', photo: base64(JPEG, Buffer.alloc(1_500_000)) }],
])('%s: nothing is kept', async (code, body) => {
  const before = (await noted()).length;
  const refused = await note(body);
  expect([refused.status >= 400, (refused.body as ErrorView).code]).toEqual([true, code]);
  expect(await noted()).toHaveLength(before);
});

test('of another job there is no photo', async () => {
  const { path: other } = await bench.jobOf('Other');
  const id = createHash('sha256').update(JPEG).digest('hex');
  await bench.call('get', `${other}/photos/${id}`).expect(404);
});
