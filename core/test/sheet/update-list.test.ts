import { must, parseIpv4, parseMac, parsePrefix } from '../../src/net';
import {
  applyEdits,
  docOfPlan,
  planOf,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
} from '../../src/plan';
import { columnOf, rowsOf, SHEET_COLUMNS, updateOfList, type ListRow } from '../../src/sheet';

const ip = (text: string) => must(parseIpv4(text));
const device = (
  id: string,
  last: number,
  more: Partial<Parameters<typeof toDevice>[0]> = {},
  mac?: string,
) =>
  toDevice({
    ...{ id, title: `Valve ${id}`, name: `vb-${id}`, kindId: 'tarnwick-valves-16', way: 'bootp' },
    ...{ isNameTyped: true, cabinet: 'A1', ...more },
    interfaces: [
      toInterface({
        ...{ id: `${id}-at`, deviceId: id, subnetId: 's', address: ip(`10.9.0.${last}`) },
        mac: mac === undefined ? undefined : must(parseMac(mac)),
      }),
    ],
  });
const plan = toPlan({
  subnets: [
    toSubnet({
      ...{ id: 's', name: 'Hall', prefix: must(parsePrefix('10.9.0.0/24')) },
      gateway: ip('10.9.0.1'),
    }),
  ],
  devices: [
    device('1', 11, {}, '02:00:5e:00:53:01'),
    device('2', 12),
    device('3', 13, { title: 'Pump' }),
    device('4', 14),
  ],
});
const doc = docOfPlan(plan);
const update = (...list: readonly ListRow[]) => updateOfList(plan, doc, list);

test('R-LIST-UPDATE: whose a line is: by MAC, by name, by title, by address; the rest is new or gone', () => {
  const { added, changed, same, gone } = update(
    { mac: '02-00-5E-00-53-01', name: 'vb-2', cabinet: 'B1' },
    { name: 'VB-2', cabinet: 'A1' },
    { title: 'pump', position: '7' },
    { title: 'Nobody', name: 'vb-9' },
  );
  expect(added).toEqual([3]);
  expect(changed.map(({ row, title, cells }) => [row, title, cells])).toEqual([
    ...[
      [
        0,
        'Valve 1',
        [
          { column: 'name', from: 'vb-1', to: 'vb-2' },
          { column: 'cabinet', from: 'A1', to: 'B1' },
        ],
      ],
      [1, 'Valve 2', [{ column: 'name', from: 'vb-2', to: 'VB-2' }]],
      [
        2,
        'Pump',
        [
          { column: 'title', from: 'Pump', to: 'pump' },
          { column: 'position', from: '', to: '7' },
        ],
      ],
    ],
  ]);
  expect(same).toBe(0);
  expect(gone.map(({ id }) => id)).toEqual(['4']);
});

test('R-LIST-UPDATE: what a line says in another way is no change; what it does not say stays', () => {
  const said: ListRow = {
    ...{ name: 'vb-1', mac: '0200.5e00.5301', mask: '24', gateway: '10.9.0.1', kind: 'TV-16-E' },
    ...{ subnet: '10.9.0.0/24', way: 'BOOTP', cabinet: '', maker: 'Somebody else' },
  };
  const { changed, same, edits } = update(said);
  expect([changed, same, edits]).toEqual([[], 1, []]);
});

test('R-LIST-UPDATE: the sheet as it stands changes nothing, and an edited one only what was edited', () => {
  const lines = rowsOf(plan).map((row) =>
    Object.fromEntries(SHEET_COLUMNS.map(({ id }) => [id, columnOf(id).text(row, plan)])),
  );
  expect(update(...lines)).toMatchObject({ added: [], changed: [], gone: [], edits: [], same: 4 });
  const moved = update({ ...lines[0], address: '10.9.0.99', note: 'moved' }, ...lines.slice(1));
  expect(moved.changed.map(({ cells }) => cells.map(({ column }) => column))).toEqual([
    ['address', 'note'],
  ]);
  const after = applyEdits(doc, moved.edits);
  if (!after.ok) throw new Error('not applied');
  expect(planOf(after.value.doc).devices[0]).toMatchObject({
    ...{ note: 'moved', interfaces: [{ address: ip('10.9.0.99') }] },
  });
});

test('R-LIST-UPDATE: a cell that cannot be taken is told with its line, and the rest of the line is taken', () => {
  const { bad, changed } = update({ name: 'vb-1', address: '10.9.0.300', note: 'x' });
  expect(bad.map(({ row, column, issue }) => [row, column, issue.code])).toEqual([
    [0, 'address', expect.stringMatching(/^ipv4/)],
  ]);
  expect(changed[0]?.cells.map(({ column }) => column)).toEqual(['note']);
});

test('R-LIST-UPDATE: two lines of one device: the second is a new one', () => {
  expect(update({ name: 'vb-1' }, { name: 'vb-1' }).added).toEqual([1]);
});
