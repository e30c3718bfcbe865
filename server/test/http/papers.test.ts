import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { DescriptionView, ErrorView, KindsElsewhere, PlanView } from '@ipsonomo/core/api';
import { readPlanFile } from '@ipsonomo/core/formats';
import { must } from '@ipsonomo/core/net';
import { docOf, SHELF, type Kind } from '@ipsonomo/core/plan';
import { ApiBench } from './api-bench';

// Description files read by the server, and papers that go with a kind wherever its plan goes.

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('papers');
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const FOLDER = join(__dirname, '../data/descriptions');
const MANUAL = Buffer.from('%PDF-1.4 a manual of two words');
const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

const send = (path: string, what: string, name: string, body: Buffer) =>
  bench
    .call('post', `${path}/${what}?name=${encodeURIComponent(name)}`)
    .set('content-type', 'application/octet-stream')
    .send(body);

const kindWith = (papers: Kind['papers']): Kind => {
  const [kind] = SHELF;
  if (!kind) throw new Error('the shelf is empty');
  return { ...kind, papers };
};

async function jobWithManual(name: string): Promise<string> {
  const { path } = await bench.jobOf(name);
  await send(path, 'papers', 'manual.pdf', MANUAL).expect(201, {
    ...{ id: sha256(MANUAL), bytes: MANUAL.length },
  });
  const paper = { id: sha256(MANUAL), name: 'manual.pdf', bytes: MANUAL.length };
  const thing = docOf('kind', kindWith([{ ...paper, what: 'manual' }]));
  const edits = [{ op: 'add', type: 'kind', thing }];
  await bench.call('post', `${path}/edits`).send({ edits, why: 'attached' }).expect(200);
  return path;
}

test('a description is read in a thread and changes nothing', async () => {
  const { path } = await bench.jobOf('Described');
  const file = readFileSync(join(FOLDER, 'plain.xml'));
  const { body } = await send(path, 'descriptions', 'plain.xml', file).expect(200);
  const { kinds, unread } = body as DescriptionView;
  expect(kinds.map(({ name }) => name)).toEqual(['Station, 8 slots', 'Station, 1 slot']);
  expect(unread).toEqual([]);
  const plan = (await bench.call('get', `${path}/plan`)).body as PlanView;
  expect(plan.things.kind).toEqual([]);
});

test.each([
  ['descriptions', 'empty.eds', Buffer.alloc(0), 422, 'file.empty'],
  ['descriptions', 'list.xml', Buffer.from('<list/>'), 422, 'file.noDevice'],
  ['descriptions', 'large.xml', Buffer.alloc(22_100_000, 0x20), 413, 'body.tooLarge'],
  ['papers', 'empty.pdf', Buffer.alloc(0), 422, 'paper.empty'],
  ['papers', 'large.pdf', Buffer.alloc(20_000_001, 0x20), 413, 'paper.large'],
])('%s: %s is refused', async (what, name, bytes, status, code) => {
  const { path } = await bench.jobOf(`Refused ${name}`);
  const { body } = await send(path, what, name, bytes).expect(status);
  expect((body as ErrorView).code).toBe(code);
});

test('a job takes papers up to a hundred megabytes, the same one once', async () => {
  const { path } = await bench.jobOf('Full');
  const large = (fill: number) => Buffer.alloc(20_000_000, fill);
  for (const fill of [1, 2, 3, 4, 5, 5])
    await send(path, 'papers', 'x.pdf', large(fill)).expect(201);
  const { body } = await send(path, 'papers', 'x.pdf', large(6)).expect(409);
  expect((body as ErrorView).code).toBe('paper.full');
}, 60_000);

test('a paper is shown as what it is and never run', async () => {
  const path = await jobWithManual('Shown');
  const shown = await bench.call('get', `${path}/papers/${sha256(MANUAL)}?name=M%20%C3%A4.pdf`);
  expect(shown.headers).toMatchObject({
    'content-type': 'application/pdf',
    'x-content-type-options': 'nosniff',
  });
  expect(shown.headers['content-disposition']).toMatch(/^inline; filename="M .\.pdf"/);
  expect(Buffer.from(shown.body as Buffer)).toEqual(MANUAL);
  const page = Buffer.from('<html><script>1</script></html>');
  await send(path, 'papers', 'page.html', page).expect(201);
  const { headers } = await bench.call('get', `${path}/papers/${sha256(page)}?name=page.html`);
  expect(headers['content-type']).toBe('application/octet-stream');
  expect(headers['content-disposition']).toBe('attachment; filename=page.html');
  await bench.call('get', `${path}/papers/${'0'.repeat(64)}`).expect(404);
});

test('a plan file carries its papers; one that was tampered with is refused', async () => {
  const path = await jobWithManual('Carried');
  const file = (await bench.call('get', `${path}/plan.json`).expect(200)).text;
  expect([...must(readPlanFile(file)).papers]).toEqual([
    [sha256(MANUAL), MANUAL.toString('base64')],
  ]);
  const take = (text: string) =>
    bench.call('post', '/jobs/from-file').set('content-type', 'text/plain').send(text);
  const { id } = (await take(file).expect(201)).body as { id: string };
  const there = await bench.call('get', `/jobs/${id}/papers/${sha256(MANUAL)}`).expect(200);
  expect(Buffer.from(there.body as Buffer)).toEqual(MANUAL);
  const tampered = file.replace(MANUAL.toString('base64'), Buffer.from('other').toString('base64'));
  const { body } = await take(tampered).expect(422);
  expect((body as ErrorView).issues).toEqual([{ code: 'paper.changed', where: sha256(MANUAL) }]);
  // Named only: the plan is whole, what the paper holds is missed and said so.
  const named = (await bench.call('get', `${path}/plan.json?papers=named`).expect(200)).text;
  const bare = (await take(named).expect(201)).body as { id: string };
  const missing = await bench.call('get', `/jobs/${bare.id}/papers/${sha256(MANUAL)}`).expect(404);
  expect((missing.body as ErrorView).code).toBe('paper.missing');
});

describe('R-KINDS-SHARED: kinds go from job to job, and never over what is there', () => {
  const ownKind = (more: Partial<Kind> = {}): Kind => ({
    ...{ ...kindWith([]), id: 'own-shared-valve', maker: 'Own', name: 'Shared valve' },
    ...more,
  });
  const addKind = (path: string, kind: Kind) =>
    bench
      .call('post', `${path}/edits`)
      .send({ edits: [{ op: 'add', type: 'kind', thing: docOf('kind', kind) }], why: 'made it' })
      .expect(200);
  const kindsOf = async (path: string) =>
    ((await bench.call('get', `${path}/plan`)).body as PlanView).things.kind;
  const elsewhere = async (path: string, name: string) =>
    (
      (await bench.call('get', `${path}/kinds-elsewhere`).expect(200)).body as KindsElsewhere[]
    ).find((one) => one.name === name);
  const paperOf = async (path: string) => {
    const paper = { id: sha256(MANUAL), name: 'manual.pdf', bytes: MANUAL.length };
    await send(path, 'papers', 'manual.pdf', MANUAL).expect(201);
    return { ...paper, what: 'manual' as const };
  };

  test('straight from another job, with its papers; once is enough', async () => {
    const from = await bench.jobOf('Sharing kinds');
    const to = await bench.jobOf('Taking kinds');
    await addKind(from.path, ownKind({ papers: [await paperOf(from.path)] }));
    const offered = await elsewhere(to.path, 'Sharing kinds');
    expect(offered?.kinds).toMatchObject([{ id: 'own-shared-valve', state: 'new', maker: 'Own' }]);
    const take = () =>
      bench
        .call('post', `${to.path}/kinds`)
        .send({ from: offered?.job, kinds: ['own-shared-valve'] })
        .expect(200);
    expect((await take()).body).toEqual({ taken: 1, kept: [] });
    expect((await kindsOf(to.path)).map(({ id }) => id)).toEqual(['own-shared-valve']);
    await bench.call('get', `${to.path}/papers/${sha256(MANUAL)}`).expect(200);
    expect(await elsewhere(to.path, 'Sharing kinds')).toBe(undefined);
    expect((await take()).body).toEqual({ taken: 0, kept: [] });
    await bench
      .call('post', `${to.path}/kinds`)
      .send({ from: offered?.job, kinds: ['nobody'] })
      .expect(404);
  });

  test('as a file; one that is here with other facts stays as it is', async () => {
    const from = await bench.jobOf('Kinds as a file');
    const to = await bench.jobOf('Kinds out of a file');
    await addKind(from.path, ownKind({ id: 'own-a', papers: [await paperOf(from.path)] }));
    await addKind(from.path, ownKind({ id: 'own-b', note: 'theirs', name: 'Valve B' }));
    await addKind(to.path, ownKind({ id: 'own-b', note: 'mine', name: 'Valve B' }));
    expect((await elsewhere(to.path, 'Kinds as a file'))?.kinds.map(({ state }) => state)).toEqual([
      ...['new', 'other'],
    ]);
    const { text } = await bench.call('get', `${from.path}/kinds.json`).expect(200);
    const file = must(readPlanFile(text));
    expect([file.doc.kind.size, file.doc.device.size, file.papers.size]).toEqual([2, 0, 1]);
    const read = await bench
      .call('post', `${to.path}/kinds/from-file`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(text))
      .expect(200);
    expect(read.body).toEqual({ taken: 1, kept: ['Valve B'] });
    expect((await kindsOf(to.path)).map(({ id, note }) => [id, note])).toEqual([
      ...[
        ['own-b', 'mine'],
        ['own-a', ''],
      ],
    ]);
    await bench.call('get', `${to.path}/papers/${sha256(MANUAL)}`).expect(200);
  });

  test('what is no plan file is refused, and nothing is taken', async () => {
    const { path } = await bench.jobOf('Kinds out of nothing');
    const { body } = await bench
      .call('post', `${path}/kinds/from-file`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from('{"format":"recipe"}'))
      .expect(422);
    expect((body as ErrorView).issues.map(({ code }) => code)).toEqual(['file.format']);
    expect(await kindsOf(path)).toEqual([]);
  });
});
