import {
  docFromView,
  thingsOf,
  type EditsView,
  type ErrorView,
  type PlanView,
  type RevisionView,
} from '@ipsonomo/core/api';
import { applyEdits } from '@ipsonomo/core/plan';
import { ApiBench, device, type Method } from './api-bench';

// Changes of a plan over the wire: edits, undo and redo, two people at once, named revisions.

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('edits');
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

/** What a person sees of a job and does to it by name. */
function at(path: string, person = 'Mara Quist') {
  const as = (method: Method, to: string) => bench.call(method, `${path}${to}`, person);
  return {
    plan: async () => (await as('get', '/plan').expect(200)).body as PlanView,
    edit: (edits: readonly object[], why = '') => as('post', '/edits').send({ edits, why }),
    undo: () => as('post', '/undo'),
    redo: () => as('post', '/redo'),
    revisions: async () => (await as('get', '/revisions').expect(200)).body as RevisionView[],
  };
}

async function deviceAt(path: string, subnetId: string, address: string): Promise<PlanView> {
  const wanted = device({ subnetId, address, name: `vb-${address.split('.')[3]}` });
  await bench.add(path, wanted);
  return at(path).plan();
}

const setTitle = (id: string | undefined, from: string, to: string) => ({
  ...{ op: 'set', type: 'device', id, field: 'title', from, to },
});

test('edits: each person takes back their own, and does it again', async () => {
  const { path, subnetId } = await bench.jobOf('Undo and redo');
  await deviceAt(path, subnetId, '10.9.0.101');
  const before = await deviceAt(path, subnetId, '10.9.0.100');
  const [others, id] = before.things.device.map((one) => one.id);
  const mara = at(path);
  const rowan = at(path, 'Rowan Ashby');
  const titles = async () => (await mara.plan()).things.device.map((one) => one['title']);
  await mara.edit([setTitle(id, 'Valve block', 'Sludge valves')], 'as on the door').expect(200);
  await rowan.edit([setTitle(others, 'Valve block', 'Oxygen valves')]).expect(200);
  await mara.undo().expect(200);
  expect(await titles()).toEqual(['Oxygen valves', 'Valve block']);
  await mara.redo().expect(200);
  expect(await titles()).toEqual(['Oxygen valves', 'Sludge valves']);
  await mara.undo().expect(200);
  await mara.undo().expect(200);
  expect(await titles()).toEqual(['Oxygen valves']);
  await mara.redo().expect(200);
  expect(await titles()).toEqual(['Oxygen valves', 'Valve block']);
  await rowan.redo().expect(409);
  const undone = (await mara.revisions()).map((one) => one.undoes);
  expect(undone).toEqual([9, 3, 7, 6, 4, null, null, null, null, null]);
});

test('what somebody else worked on since is not taken back under their hands', async () => {
  const { path, subnetId } = await bench.jobOf('Worked on since');
  const before = await deviceAt(path, subnetId, '10.9.0.100');
  const id = before.things.device[0]?.id;
  await at(path, 'Rowan Ashby')
    .edit([setTitle(id, 'Valve block', 'Old valves')])
    .expect(200);
  const refused = await at(path).undo().expect(409);
  expect((refused.body as ErrorView).code).toBe('edit.conflict');
  expect((await at(path).plan()).things.device).toHaveLength(1);
});

test('what two people change at once is shown side by side, and nothing of it is done', async () => {
  const { path, subnetId } = await bench.jobOf('Side by side');
  const plan = await deviceAt(path, subnetId, '10.9.0.100');
  const id = plan.things.device[0]?.id;
  await at(path, 'Rowan Ashby')
    .edit([setTitle(id, 'Valve block', 'Old valves')])
    .expect(200);
  const other = { op: 'set', type: 'device', id, field: 'area', from: '', to: 'Filter hall' };
  const late = await at(path)
    .edit([setTitle(id, 'Valve block', 'New valves'), other])
    .expect(409);
  expect((late.body as ErrorView).conflicts).toEqual([
    {
      type: 'device',
      id,
      field: 'title',
      base: 'Valve block',
      theirs: 'Old valves',
      mine: 'New valves',
    },
  ]);
  const now = (await at(path).plan()).things.device[0];
  expect([now?.['title'], now?.['area']]).toEqual(['Old valves', '']);
});

test('an edit may make a snag, and a page that was away catches up by the edits since', async () => {
  const { path, subnetId } = await bench.jobOf('Caught up');
  const plan = await deviceAt(path, subnetId, '10.9.0.100');
  await deviceAt(path, subnetId, '10.9.0.101');
  const atId = plan.things.interface[0]?.id;
  const twice = { op: 'set', type: 'interface', id: atId, field: 'address' };
  await at(path)
    .edit([{ ...twice, from: '10.9.0.100', to: '10.9.0.101' }])
    .expect(200);
  const view = await bench.view(path);
  expect(view.left.plan).toBe(1);
  expect(view.devices.map((one) => one.snags[0]?.rule)).toEqual([
    'S-ADDRESS-TWICE',
    'S-ADDRESS-TWICE',
  ]);
  const since = (await bench.call('get', `${path}/edits?since=${plan.revision}`)).body as EditsView;
  const known = docFromView(plan);
  const outcome = applyEdits(
    known,
    since.revisions.flatMap((one) => one.edits),
  );
  const { revision, things } = await at(path).plan();
  expect(since.revision).toBe(revision);
  expect(outcome.ok && thingsOf(outcome.value.doc)).toEqual(things);
  expect(things.freed).toMatchObject([{ address: '10.9.0.100', whose: 'Valve block' }]);
});

test.each<[string, object, string]>([
  ['an unknown thing', { op: 'add', type: 'castle', thing: {} }, 'edits.0.type'],
  ['an unknown act', { op: 'burn', type: 'device', id: 'x', field: 'title' }, 'edits.0.op'],
  [
    'a field that is none',
    { op: 'set', type: 'device', id: 'x', field: 'colour', to: 1 },
    'edits.0.field',
  ],
  [
    'an address of 300',
    { op: 'set', type: 'interface', id: 'x', field: 'address', to: '10.9.0.300' },
    '300',
  ],
  ['half a thing', { op: 'add', type: 'realm', thing: { id: 'r' } }, 'edits.0.thing.name'],
  [
    'a field too many',
    { op: 'add', type: 'realm', thing: { id: 'r', name: 'R', x: 1 } },
    'edits.0.thing.x',
  ],
])('an edit of %s is refused and names the place', async (_name, edit, where) => {
  const answer = await bench
    .call('post', `/jobs/${bench.job.id}/edits`)
    .send({ edits: [edit], why: '' });
  expect(answer.status).toBe(422);
  expect((answer.body as ErrorView).issues[0]?.where).toBe(where);
});

test('a revision is named, and the name stays with it', async () => {
  const { path, subnetId } = await bench.jobOf('Named');
  const { revision } = await deviceAt(path, subnetId, '10.9.0.100');
  const name = { name: 'as issued to site' };
  await bench.call('patch', `${path}/revisions/${revision}`).send(name).expect(204);
  await bench.call('patch', `${path}/revisions/99`).send(name).expect(404);
  await bench.call('patch', `${path}/revisions/${revision}`).send({ name: ' ' }).expect(422);
  const [last] = await at(path).revisions();
  expect(last).toMatchObject({ number: revision, name: 'as issued to site', count: 2 });
  expect((await at(path).plan()).lastNamed).toBe(revision);
});

test('a plan goes out as a file and comes in as another job, whole or not at all', async () => {
  const { path, subnetId } = await bench.jobOf('Out and in');
  await deviceAt(path, subnetId, '10.9.0.101');
  const file = await bench.call('get', `${path}/plan.json`).expect(200);
  expect(file.headers['content-disposition']).toMatch(/Out and in plan revision 2\.json/);
  const send = (text: string) =>
    bench.call('post', '/jobs/from-file').set('content-type', 'text/plain').send(text);
  const made = await send(file.text).expect(201);
  const other = await at(`/jobs/${(made.body as { id: string }).id}`).plan();
  expect(other.name).toBe('Out and in 2');
  expect(other.things).toEqual((await at(path).plan()).things);
  for (const [text, code] of [
    ['', 'file.json'],
    ['{}', 'file.format'],
    [file.text.replace('10.9.0.101', '10.9.0.1010'), 'ipv4.octet'],
    [file.text.replace('"devices"', '"gadgets"'), 'file.value'],
  ] as const) {
    const refused = await send(text).expect(422);
    expect((refused.body as ErrorView).code).toBe(code);
  }
  await bench.call('post', '/jobs').send({ name: 'Out and in' }).expect(409);
});
