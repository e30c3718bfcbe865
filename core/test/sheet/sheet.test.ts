import fc from 'fast-check';
import { applyEdits, docOfPlan, findDoc, planOf, type PlanDoc } from '../../src/plan';
import {
  continueSeries,
  editsOfCells,
  formatCells,
  matchColumns,
  newRowsOf,
  parseCells,
  rowsOf,
  LIST_COLUMNS,
  SHEET_COLUMNS,
  type Cell,
  type ColumnId,
  type ListRow,
} from '../../src/sheet';
import { snagsOf } from '../../src/snags';
import { formatIpv4, maskOf, must, parseIpv4 } from '../../src/net';
import { PLAN } from '../snags/world';
import { cases } from '../cases';

const doc = docOfPlan(PLAN);
const plan = planOf(doc);
const rows = new Map(rowsOf(plan).map((row) => [row.id, row]));
const rowOf = (id: string) => [...rows.values()].find((row) => row.device.id === id)?.id ?? id;

// Spreadsheet cells on the clipboard: common practice, no source.
test.each([
  [
    'a\tb\r\nc\td\r\n',
    [
      ['a', 'b'],
      ['c', 'd'],
    ],
  ],
  ['a\tb\nc', [['a', 'b'], ['c']]],
  ['"a\tb"\tc', [['a\tb', 'c']]],
  ['"say ""hello"""\r\nx', [['say "hello"'], ['x']]],
  ['"two\nlines"\tb', [['two\nlines', 'b']]],
  ['\t\n', [['', '']]],
  ['a\t', [['a', '']]],
  ['3" pipe\t"', [['3" pipe', '"']]],
  ['"never ends\tb', [['"never ends', 'b']]],
  ['', []],
])('the clipboard %j', (text, cells) => {
  expect(parseCells(text)).toEqual(cells);
});

test('cells come back from the clipboard as they were', () => {
  const cell = fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', '\r', ' ', '7') });
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1 }),
      (all) => {
        expect(parseCells(formatCells(all))).toEqual(all);
      },
    ),
    { numRuns: cases(300), seed: 9 },
  );
});

test.each([
  [['Drive 1'], 2, ['Drive 2', 'Drive 3']],
  [['fh2-drive-08', 'fh2-drive-10'], 2, ['fh2-drive-12', 'fh2-drive-14']],
  [['172.22.40.254'], 2, ['172.22.40.255', '172.22.41.0']],
  [['172.22.40.80', '172.22.40.84'], 1, ['172.22.40.88']],
  [['FH2'], 1, ['FH3']],
  [['left', 'right'], 3, ['left', 'right', 'left']],
  [['pump 1', 'drive 2'], 2, ['pump 1', 'drive 2']],
  [['2', '1'], 3, ['0', '0', '0']],
  [['x7y'], 1, ['x8y']],
  [[], 2, []],
])('%j goes on for %i with %j', (begun, count, next) => {
  expect(continueSeries(begun, count)).toEqual(next);
});

const edit = (...cells: readonly Cell[]) => editsOfCells(plan, doc, rows, cells);
const set = (device: string, column: ColumnId, text: string) =>
  edit({ row: rowOf(device), column, text });

test.each<[ColumnId, string, readonly (readonly [field: string, to: unknown])[]]>([
  ['title', ' Drum drive 7 ', [['title', 'Drum drive 7']]],
  [
    'name',
    'Pump 7',
    [
      ['name', 'Pump 7'],
      ['isNameTyped', true],
    ],
  ],
  ['address', '172.22.40.99', [['address', '172.22.40.99']]],
  ['address', '.99', [['address', '172.22.40.99']]],
  ['subnet', '172.22.41.0/24', [['subnetId', 'feed']]],
  ['kind', 'WENDLE STATION 20', []],
  ['way', 'Web page', [['way', 'web-page']]],
  ['controller', '', [['controllerId', null]]],
  ['mac', '02-00-5E-00-53-77', [['mac', '02:00:5e:00:53:77']]],
  ['stationName', 'pump-7', [['stationName', 'pump-7']]],
  ['cabinet', 'FH9', [['cabinet', 'FH9']]],
])('typing %s: %j', (column, text, fields) => {
  const { edits, bad } = set('drive', column, text);
  if (column === 'kind') expect(bad).toMatchObject([{ issue: { code: 'cell.kind' } }]);
  const told = edits.map((one) => (one.op === 'set' ? [one.field, one.to] : []));
  expect(told).toEqual(expect.arrayContaining([...fields]));
});

test.each<[ColumnId, string, string]>([
  ['title', ' ', 'cell.empty'],
  ['title', 'x'.repeat(121), 'cell.long'],
  ['kind', 'nothing', 'cell.kind'],
  ['subnet', 'Nowhere', 'cell.subnet'],
  ['address', '172.22.40', 'ipv4.parts'],
  ['address', '.300', 'ipv4.parts'],
  ['way', 'by hand', 'cell.way'],
  ['controller', 'nobody', 'cell.device'],
  ['mac', '02:00', 'mac.length'],
])('%s: %j is named as %s and changes nothing', (column, text, code) => {
  const { edits, bad } = set('drive', column, text);
  expect([edits, bad.map((one) => [one.column, one.text, one.issue.code])]).toEqual([
    [],
    [[column, text, code]],
  ]);
});

test('what a column shows can be typed back and changes nothing', () => {
  for (const row of rows.values())
    for (const column of SHEET_COLUMNS) {
      const text = column.text(row, plan);
      if (text === '' || column.id === 'name') continue;
      expect([column.id, text, edit({ row: row.id, column: column.id, text })]).toEqual([
        ...[column.id, text],
        { edits: [], bad: [] },
      ]);
    }
});

test('a derived name follows its pattern, a typed one stays', () => {
  const derived = set('drive', 'cabinet', 'FH9').edits;
  expect(derived).toContainEqual(
    expect.objectContaining({ field: 'name', to: expect.stringMatching(/^fh9-/) as string }),
  );
  const device = { ...findDoc(doc, 'device', 'drive'), id: 'drive', isNameTyped: true };
  const typed = { ...doc, device: doc.device.with(new Map([['drive', device]]), new Set()) };
  const typedPlan = planOf(typed);
  const typedRows = new Map(rowsOf(typedPlan).map((row) => [row.id, row]));
  const cells = [{ row: rowOf('drive'), column: 'cabinet', text: 'FH9' }] as const;
  expect(editsOfCells(typedPlan, typed, typedRows, cells).edits).toHaveLength(1);
});

let next = 0;
const idOf = (type: string) => `${type}-${(next += 1)}`;
const listed = (...list: readonly ListRow[]) =>
  newRowsOf(plan, list, { kindId: 'belloch-drive-d4', subnetId: 'hall' }, 0, idOf);
const after = (edits: Parameters<typeof applyEdits>[1]): PlanDoc => {
  const outcome = applyEdits(doc, edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
  return outcome.value.doc;
};

test('lines of a list become devices; what they leave out is proposed, and nothing of it is wrong', () => {
  const { edits, bad } = listed(
    { title: 'Pump 1', cabinet: 'FH9' },
    { title: 'Pump 2', cabinet: 'FH9', address: '.90' },
    { title: 'Pump 3', cabinet: 'FH9', address: '172.22.41.90', controller: 'Pump 1' },
    { title: 'Pump 4', name: 'Pump_4', kind: 'wendle-station-20', mac: '02:00:5e:00:53:44' },
  );
  expect(bad).toEqual([]);
  const grown = planOf(after(edits));
  const added = grown.devices.slice(plan.devices.length);
  expect(added.map(({ title, name, isNameTyped }) => [title, name, isNameTyped])).toEqual([
    ['Pump 1', 'fh9-drive-1', false],
    ['Pump 2', 'fh9-drive-2', false],
    ['Pump 3', 'fh9-drive-3', false],
    ['Pump 4', 'Pump_4', true],
  ]);
  expect(added[2]?.controllerId).toBe(added[0]?.id);
  expect(added[2]?.interfaces[0]?.subnetId).toBe('feed');
  const wrong = snagsOf(grown).filter((one) => one.severity === 'wrong');
  // The name that was typed is kept as it is, with its snag; so is a pair that cannot talk.
  expect(wrong.map((one) => one.rule).sort()).toEqual(['S-HOST-NAME', 'S-ROLE-NONE']);
});

test('every bad cell of a list is named, and the good lines are whole', () => {
  const { rows: made, bad } = listed(
    { title: 'Good' },
    { title: 'Bad', address: '1.2.3', way: 'by hand', mac: 'zz' },
    { title: 'Lost', controller: 'nobody' },
    { title: 'Odd', kind: 'no such' },
  );
  expect(made.map(Boolean)).toEqual([true, false, false, false]);
  expect(bad.map((one) => [one.row, one.column, one.text])).toEqual([
    [1, 'way', 'by hand'],
    [1, 'mac', 'zz'],
    [1, 'address', '1.2.3'],
    [3, 'kind', 'no such'],
    [2, 'controller', 'nobody'],
  ]);
});

test('an unknown kind is named with its maker, and hides no other fault of its line', () => {
  const { bad, unknownKinds, edits } = newRowsOf(
    plan,
    [
      { title: 'A', kind: 'PX 7', maker: 'Ollerby', address: '1.2.3' },
      { title: 'B', kind: 'px 7', vlan: 'x', address: '172.22.40.201' },
      { title: 'C', orderNumber: 'OL-9', subnet: 'nowhere', mac: 'zz' },
    ],
    {},
    0,
    idOf,
  );
  expect(bad.map((one) => [one.row, one.column, one.issue.code])).toEqual([
    [0, 'kind', 'cell.kind'],
    [0, 'address', 'ipv4.parts'],
    [1, 'vlan', 'cell.vlanNumber'],
    [1, 'kind', 'cell.kind'],
    [2, 'subnet', 'cell.subnet'],
    [2, 'mac', 'mac.notation'],
    [2, 'orderNumber', 'cell.kind'],
  ]);
  expect(unknownKinds).toEqual([
    { words: 'PX 7', maker: 'Ollerby', lines: 2 },
    { words: 'OL-9', maker: '', lines: 1 },
  ]);
  expect(edits).toEqual([]);
});

test('a kind is made on the spot for all its lines, or is one that is known by another name', () => {
  const { edits, bad, unknownKinds } = newRowsOf(
    plan,
    [
      { title: 'A', kind: 'PX 7', maker: 'Ollerby', orderNumber: 'OL-7' },
      { title: 'B', kind: 'px 7' },
      { title: 'C', kind: 'D4 drive', maker: 'somebody else' },
    ],
    {
      subnetId: 'hall',
      kinds: [
        { words: 'PX 7', kindId: null },
        { words: 'd4 drive', kindId: 'belloch-drive-d4' },
        { words: 'in no line', kindId: null },
      ],
    },
    0,
    idOf,
  );
  expect([bad, unknownKinds]).toEqual([[], []]);
  const grown = planOf(after(edits));
  const made = grown.kinds.filter((one) => !plan.kinds.includes(one));
  expect(made.map(({ name, maker, orderNumber }) => [name, maker, orderNumber])).toEqual([
    ['PX 7', 'Ollerby', 'OL-7'],
  ]);
  expect(grown.devices.slice(plan.devices.length).map(({ kindId }) => kindId)).toEqual([
    ...[made[0]?.id, made[0]?.id, 'belloch-drive-d4'],
  ]);
});

test('what a line says of its subnet and its kind is held against the plan, and never dropped', () => {
  const hall = plan.subnets.find(({ id }) => id === 'hall');
  const mask = hall ? formatIpv4(maskOf(hall.prefix.length)) : '';
  const gateway = hall?.gateway === undefined ? 'none' : formatIpv4(hall.gateway);
  const { edits, bad } = listed(
    { title: 'Same', mask, gateway, vlan: String(hall?.vlan ?? '') },
    { title: 'Other', mask: '/30', gateway: '172.22.40.77', serial: 'S-1' },
    { title: 'Wrong', vlan: '4000' },
    { title: 'Maker', kind: 'Pump drive D4', maker: 'Ollerby' },
    { title: 'Number', kind: 'Valve block, 16 coils', orderNumber: 'X-1' },
    {
      title: 'Both',
      kind: 'Valve block, 16 coils',
      maker: 'TARNWICK Ltd.',
      orderNumber: 'tv-16-e',
    },
  );
  expect(bad.map((one) => [one.row, one.issue.code])).toEqual([
    [2, 'cell.vlan'],
    [3, 'cell.maker'],
    [4, 'cell.orderNumber'],
  ]);
  const grown = planOf(after(edits));
  const added = grown.devices.slice(plan.devices.length);
  expect(
    added.map(({ title, serial, interfaces: [at] }) => [title, at?.mask, at?.gateway, serial]),
  ).toEqual([
    ['Same', undefined, 'subnet', ''],
    ['Other', must(parseIpv4('255.255.255.252')), must(parseIpv4('172.22.40.77')), 'S-1'],
    ['Both', undefined, 'subnet', ''],
  ]);
  expect(snagsOf(grown).map(({ rule }) => rule)).toEqual(expect.arrayContaining(['S-MASK-OTHER']));
});

test('a list without kind or subnet says which is missing', () => {
  const list = [
    { title: 'x' },
    { kind: 'belloch-drive-d4' },
    { kind: 'belloch-drive-d4', address: '1.2.3.999' },
  ];
  const { bad } = newRowsOf(plan, list, {}, 0, idOf);
  expect(bad.map((one) => [one.row, one.column, one.issue.code])).toEqual([
    [0, 'kind', 'cell.needed'],
    [0, 'subnet', 'cell.needed'],
    [1, 'subnet', 'cell.needed'],
    [2, 'address', 'ipv4.octet'],
  ]);
});

test.each([
  [
    ['Device', 'IP_Address', 'Type', 'colour'],
    ['title', 'address', 'kind', undefined],
  ],
  [
    ['Host-Name', 'MAC address', 'PLC'],
    ['name', 'mac', 'controller'],
  ],
  [
    ['ip', 'address'],
    ['address', undefined],
  ],
  [
    ['Gerätename', 'IP-Adresse', 'Subnetzmaske', 'Standardgateway', 'MAC-Adresse', 'Typ'],
    ['title', 'address', 'mask', 'gateway', 'mac', 'kind'],
  ],
  [
    ['Geraet', 'Hersteller', 'Bestell-Nr.', 'Schaltschrank', 'SPS', 'Serien-Nr.', 'VLAN-ID'],
    ['title', 'maker', 'orderNumber', 'cabinet', 'controller', 'serial', 'vlan'],
  ],
  [
    ['Manufacturer', 'Part Number', 'Subnet Mask', 'Default_Gateway', 'Serial No.', 'Anlagenteil'],
    ['maker', 'orderNumber', 'mask', 'gateway', 'serial', 'area'],
  ],
])('the headings %j are taken for %j', (headings, columns) => {
  expect(matchColumns(headings, LIST_COLUMNS)).toEqual(columns);
});

test('a heading that was matched by hand before is remembered', () => {
  const remembered = new Map([['Colour', 'note']]);
  expect(matchColumns(['Colour'], LIST_COLUMNS, remembered)).toEqual(['note']);
});
