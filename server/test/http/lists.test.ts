import ExcelJS from 'exceljs';
import type {
  EditedView,
  ErrorView,
  ListPreview,
  ListTaking,
  RevisionView,
  ListView,
  PlanView,
} from '@ipsonomo/core/api';
import { ApiBench } from './api-bench';

// A list on its way into a plan: read in a thread, seen before anything is changed, taken whole.

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('lists');
}, 30_000);

afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

async function upload(path: string, name: string, body: Buffer): Promise<string> {
  const made = await bench
    .call('post', `${path}/lists?name=${encodeURIComponent(name)}`)
    .set('content-type', 'application/octet-stream')
    .send(body)
    .expect(201);
  return (made.body as { id: string }).id;
}

async function settled(path: string, id: string): Promise<ListView> {
  for (;;) {
    const view = (await bench.call('get', `${path}/lists/${id}`).expect(200)).body as ListView;
    // Behind one whose thread has not ended yet it waits.
    if (view.state !== 'reading' && view.state !== 'waiting') return view;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
}

const taking = (columns: ListTaking['columns'], subnetId?: string): ListTaking => ({
  ...{ sheet: 0, columns },
  defaults: { kindId: 'belloch-drive-d4', ...(subnetId ? { subnetId } : {}) },
});

const plan = async (path: string) => (await bench.call('get', `${path}/plan`)).body as PlanView;

test('the lines of a sheet are told as they stand in the file', async () => {
  const { path } = await bench.jobOf('As entered');
  const id = await upload(path, 'project.csv', Buffer.from('name;address\na-1;10.9.0.7\n'));
  await settled(path, id);
  const lines = (await bench.call('get', `${path}/lists/${id}/lines?sheet=0`).expect(200))
    .body as unknown;
  expect(lines).toEqual({
    lines: [
      ['name', 'address'],
      ['a-1', '10.9.0.7'],
    ],
    count: 1,
  });
  await bench.call('get', `${path}/lists/${id}/lines?sheet=one`).expect(400);
});

test('a workbook: seen first, then its good lines are one revision, and its columns are known', async () => {
  const { path, subnetId } = await bench.jobOf('From a workbook');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Devices');
  sheet.addRow(['Tag', 'Address', 'Colour']);
  sheet.addRow(['Pump 1', '10.9.0.80', 'red']);
  sheet.addRow(['Pump 2', '10.9.0.800', 'red']);
  sheet.addRow(['Pump 3', '', 'blue']);
  sheet.addRow(['Pump 4', '10.9.0.80', 'blue']);
  const id = await upload(path, 'hall.xlsx', Buffer.from(await book.xlsx.writeBuffer()));
  expect(await settled(path, id)).toMatchObject({
    state: 'ready',
    sheets: [{ name: 'Devices', headings: ['Tag', 'Address', 'Colour'], count: 4 }],
  });
  const columns = ['title', 'address', 'note'] as const;
  const wanted = taking(columns, subnetId);
  const before = await plan(path);
  const seen = (await bench.call('post', `${path}/lists/${id}/preview`).send(wanted).expect(200))
    .body as ListPreview;
  expect(seen).toMatchObject({
    ...{ count: 4, badLines: 1, wrong: 1 },
    bad: [{ row: 1, column: 'address', text: '10.9.0.800' }],
    devices: [
      { title: 'Pump 1', address: '10.9.0.80' },
      { title: 'Pump 3', address: '10.9.0.81' },
      { title: 'Pump 4', address: '10.9.0.80' },
    ],
  });
  // Seeing changes nothing.
  expect(await plan(path)).toEqual(before);
  const taken = (await bench.call('post', `${path}/lists/${id}/take`).send(wanted).expect(200))
    .body as EditedView;
  expect(taken.revision).toBe(before.revision + 1);
  const after = await plan(path);
  expect(after.things.device.map((one) => [one['title'], one['note']])).toEqual([
    ['Pump 1', 'red'],
    ['Pump 3', 'blue'],
    ['Pump 4', 'blue'],
  ]);
  expect(after.things.settings[0]?.['columns']).toContainEqual({
    heading: 'Colour',
    field: 'note',
  });
  // A list that was taken is gone.
  await bench.call('post', `${path}/lists/${id}/take`).send(wanted).expect(404);
});

test.each<[string, string, Buffer, string]>([
  ['a workbook of before 2007', 'old.xls', Buffer.from('d0cf11e0a1b11ae1', 'hex'), 'list.old'],
  ['a cut workbook', 'cut.xlsx', Buffer.from('504b030414000000', 'hex'), 'list.'],
  ['a picture', 'x.png', Buffer.from('89504e470d0a1a0a0000000d', 'hex'), 'list.binary'],
  ['headings alone', 'x.csv', Buffer.from('a,b\n'), 'list.empty'],
])('%s is refused, and says so', async (_text, name, body, code) => {
  const { path } = await bench.jobOf(`Refused ${name} ${Date.now()}`);
  const view = await settled(path, await upload(path, name, body));
  expect(view).toMatchObject({
    state: 'failed',
    issue: { code: expect.stringContaining(code) as string, where: name },
  });
});

test('what is no list at all is refused at the door', async () => {
  const { path, subnetId } = await bench.jobOf('At the door');
  const send = (body: Buffer) =>
    bench
      .call('post', `${path}/lists?name=x`)
      .set('content-type', 'application/octet-stream')
      .send(body);
  const empty = await send(Buffer.alloc(0)).expect(422);
  expect((empty.body as ErrorView).code).toBe('list.empty');
  const huge = await send(Buffer.alloc(25 * 1024 * 1024)).expect(413);
  expect((huge.body as ErrorView).code).toBe('body.tooLarge');
  const id = await upload(path, 'x.csv', Buffer.from('a,b\n1,2'));
  await settled(path, id);
  const badColumn = { ...taking(['title']), columns: ['colour'] };
  await bench.call('post', `${path}/lists/${id}/preview`).send(badColumn).expect(400);
  const nothing = taking([null, null], subnetId);
  const taken = await bench.call('post', `${path}/lists/${id}/take`).send(nothing).expect(200);
  expect((taken.body as EditedView).edits.length).toBeGreaterThan(0);
  const { path: other } = await bench.jobOf('Another job');
  await bench.call('get', `${other}/lists/${id}`).expect(404);
});

test('R-LIST-UPDATE: a list that came again: seen first, then new, changed and gone are one revision', async () => {
  const { path, subnetId } = await bench.jobOf('List that comes again');
  const columns: ListTaking['columns'] = ['name', 'title', 'address'];
  const send = async (text: string) => {
    const id = await upload(path, 'again.csv', Buffer.from(text));
    await settled(path, id);
    return id;
  };
  const first = await send('host;device;address\nvb-1;Pump 1;10.9.0.81\nvb-2;Pump 2;10.9.0.82\n');
  const take = (id: string, wanted: ListTaking) =>
    bench.call('post', `${path}/lists/${id}/take`).send(wanted).expect(200);
  await take(first, taking(columns, subnetId));
  const again = await send(
    'host;device;address\nvb-1;Pump 1 left;10.9.0.91\nvb-3;Pump 3;10.9.0.83\n',
  );
  const wanted = { ...taking(columns, subnetId), update: { takesOut: true } };
  const preview = (
    await bench.call('post', `${path}/lists/${again}/preview`).send(wanted).expect(200)
  ).body as ListPreview;
  expect(preview.update).toMatchObject({
    ...{ added: 1, changed: 1, same: 0, gone: 1, leaving: ['Pump 2'] },
    changes: [
      {
        line: 2,
        cells: [
          { column: 'title', from: 'Pump 1', to: 'Pump 1 left' },
          { column: 'address', from: '10.9.0.81', to: '10.9.0.91' },
        ],
      },
    ],
  });
  expect(preview.devices.map(({ title }) => title)).toEqual(['Pump 3']);
  await take(again, wanted);
  const { things } = await plan(path);
  expect(things.device.map(({ title }) => title)).toEqual(['Pump 1 left', 'Pump 3']);
  expect(things.interface.map(({ address }) => address)).toEqual(['10.9.0.91', '10.9.0.83']);
  const [last] = (await bench.call('get', `${path}/revisions`)).body as RevisionView[];
  expect(last?.what).toBe('brought 3 devices up to date with a list');
  // What is gone stays where nobody says that it goes.
  const stays = await send('host;device;address\nvb-3;Pump 3;10.9.0.84\n');
  await take(stays, { ...wanted, update: { takesOut: false } });
  expect((await plan(path)).things.device).toHaveLength(2);
});
