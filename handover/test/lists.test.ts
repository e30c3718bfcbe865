import Papa from 'papaparse';
import * as SheetJS from 'xlsx';
import JSZip from 'jszip';
import { interfacesOf } from '@ipsonomo/core/plan';
import { LIST_OUT } from '@ipsonomo/core/api';
import { device, HALL, ip, mac, planWith, SMALL, textOf, written } from './samples';

// Lists read back by libraries that did not write them: PapaParse and SheetJS.

/** What people type, and what spreadsheets and files trip over. */
const HARD = [
  '=1+1',
  '+49 7',
  '-1',
  '@SUM(A1)',
  'a "quoted", comma; semicolon',
  'two\r\nlines',
  'Förderband Süd – Ölpresse',
  'مضخة ١',
  'pump 🚰 1',
  ' leading and trailing ',
];
const plan = planWith(
  [
    ...HARD.map((title, at) =>
      device(String(at), 'bootp', { address: ip(`172.22.40.${9 + at * 10}`) }, { title }),
    ),
    device('low', 'dhcp-mac', {
      ...{ address: ip('10.9.7.70'), subnetId: 'small', mac: mac('02:00:5e:00:53:01') },
    }),
  ],
  [HALL, SMALL],
);

test('R-CSV: read back byte by byte; a formula is a text with an apostrophe', async () => {
  const { text, name } = await textOf('addresses-csv', plan);
  expect(name).toBe('Tern Cove addresses revision 7.csv');
  const { data, errors } = Papa.parse<Record<string, string>>(text, {
    header: true,
    newline: '\r\n',
    skipEmptyLines: true,
  });
  expect(errors).toEqual([]);
  expect(data.length).toBe(HARD.length + 1);
  expect(data.map((row) => row['device'])).toEqual([
    ...HARD.map((title) => (/^[=+\-@]/.test(title) ? `'${title}` : title)),
    'Device low',
  ]);
  expect(data.at(-1)).toMatchObject({
    ...{ address: '10.9.7.70', mask: '255.255.255.224', gateway: '', stage: 'planned' },
    MAC: '02:00:5e:00:53:01',
  });
});

const sheetOf = (bytes: Uint8Array) => {
  const book = SheetJS.read(bytes);
  const sheet = book.Sheets[book.SheetNames[0] ?? ''];
  if (!sheet) throw new Error('no sheet');
  return {
    sheet,
    rows: SheetJS.utils.sheet_to_json<Record<string, unknown>>(sheet, { defval: '' }),
  };
};

test('R-XLSX: text is text, addresses sort rightly, the head is frozen and filtered', async () => {
  const { files } = await written('addresses-xlsx', plan);
  const bytes = files[0]?.content as Uint8Array;
  const { sheet, rows } = sheetOf(bytes);
  expect(rows.map((row) => row['device'])).toEqual([...HARD, 'Device low']);
  expect(Object.values(sheet).some((cell: { f?: string }) => cell.f !== undefined)).toBe(false);
  const byNumber = [...rows].sort(
    (one, other) => Number(one['address as a number']) - Number(other['address as a number']),
  );
  expect(byNumber.map((row) => row['address'])).toEqual(
    interfacesOf(plan)
      .map(({ at }) => at.address)
      .sort((one, other) => one - other)
      .map((one) => [24, 16, 8, 0].map((shift) => (one >>> shift) & 255).join('.')),
  );
  const xml = await (
    await JSZip.loadAsync(bytes)
  )
    .file('xl/worksheets/sheet1.xml')
    ?.async('string');
  expect(xml).toContain('state="frozen"');
  expect(xml).toMatch(/<autoFilter ref="A1:[A-Z]+1"\/>/);
});

test('the columns are those that were chosen, in their order; a word that is none is passed over', async () => {
  const options = { columns: ['address', 'nonsense', 'device'] };
  const { text } = await textOf('addresses-csv', plan, { options });
  expect(text.split('\r\n')[0]).toBe('address,device');
  const { text: all } = await textOf('addresses-csv', plan);
  // What a sheet sorts by is of no use where text is sorted.
  expect(all.split('\r\n')[0]?.split(',').length).toBe(LIST_OUT.length - 1);
});

test('a part of a job: its cabinets and subnets alone', async () => {
  const { text } = await textOf('addresses-csv', plan, {
    scope: { subnets: ['small'], cabinets: [] },
  });
  expect(text.split('\r\n').length).toBe(3);
  const { text: none } = await textOf('addresses-csv', plan, {
    scope: { subnets: [], cabinets: ['A1'] },
  });
  expect(none.split('\r\n').length).toBe(2);
});

test('R-TARGETS: an object a device, with its place', async () => {
  const { text, left } = await textOf('targets', plan);
  const list = JSON.parse(text) as { targets: string[]; labels: Record<string, string> }[];
  expect(list.length).toBe(HARD.length + 1);
  expect(left).toEqual([]);
  expect(list.at(-1)).toEqual({
    targets: ['10.9.7.70'],
    labels: { job: 'Tern Cove', device: 'Device low', host: 'fh-low', subnet: 'Press' },
  });
  // As Prometheus has them: ^[a-zA-Z_][a-zA-Z0-9_]*$ (its documentation, "Metric names and labels").
  const names = list.flatMap(({ labels }) => Object.keys(labels));
  expect(names.every((name) => /^[a-zA-Z_][a-zA-Z0-9_]*$/.test(name))).toBe(true);
});
