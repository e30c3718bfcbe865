import ExcelJS from 'exceljs';
import { deflateRawSync } from 'node:zlib';
import { readCsv } from '../../src/lists/read-csv';
import { readXlsx } from '../../src/lists/read-xlsx';

const bytes = (text: string, encoding: BufferEncoding = 'utf8') =>
  new Uint8Array(Buffer.from(text, encoding));

test.each<[string, Uint8Array, readonly string[], readonly (readonly string[])[]]>([
  ['commas', bytes('device,ip\r\nPump,10.0.0.1\r\n'), ['device', 'ip'], [['Pump', '10.0.0.1']]],
  ['semicolons', bytes('device;ip\nPump;10.0.0.1'), ['device', 'ip'], [['Pump', '10.0.0.1']]],
  ['tabs', bytes('device\tip\nPump\t10.0.0.1'), ['device', 'ip'], [['Pump', '10.0.0.1']]],
  ['a byte order mark', bytes('\uFEFFdevice,ip\nPump,1'), ['device', 'ip'], [['Pump', '1']]],
  // RFC 4180 §2: quotes, doubled quotes, a line end within.
  ['quotes', bytes('a,b\n"say ""x""","two\nlines"'), ['a', 'b'], [['say "x"', 'two\nlines']]],
  [
    'an old code page',
    bytes('ger\u00e4t,ip\nR\u00fchrer,1', 'latin1'),
    ['gerät', 'ip'],
    [['Rührer', '1']],
  ],
  [
    'a title above',
    bytes('Device list hall 2,\n,\ndevice,ip\nPump,1'),
    ['device', 'ip'],
    [['Pump', '1']],
  ],
  ['short and long lines', bytes('a,b\n1\n1,2,3'), ['a', 'b'], [['1'], ['1', '2', '3']]],
])('CSV with %s', (_name, file, headings, rows) => {
  const read = readCsv('list.csv', file);
  expect(read).toMatchObject({ ok: true, value: [{ headings, rows }] });
});

test('a line is counted as its file counts it, titles and empty ones too', async () => {
  const csv = readCsv(
    'list.csv',
    bytes('Hall 2\n\ndevice,ip\n\nPump,1\n"two\nlines",2\n,\nFan,3\n'),
  );
  expect(csv).toMatchObject({ ok: true, value: [{ lines: [5, 6, 8] }] });
  const book = await workbook((one) => {
    const sheet = one.addWorksheet('Hall');
    sheet.getRow(2).values = ['device', 'ip'];
    sheet.getRow(5).values = ['Pump', '1'];
    sheet.getRow(9).values = ['Fan', '2'];
  });
  const xlsx = await readXlsx('list.xlsx', book, () => undefined);
  expect(xlsx).toMatchObject({ ok: true, value: [{ lines: [5, 9] }] });
});

test.each<[string, Uint8Array, string]>([
  ['nothing', bytes(''), 'list.empty'],
  ['headings alone', bytes('a,b\n'), 'list.empty'],
  ['a quote that never ends', bytes('a,b\n"x,1\ny,2'), 'list.csv'],
  ['a picture', new Uint8Array([0x89, 0x50, 0, 0, 1, 2, 3, 10, 4, 5]), 'list.binary'],
  ['too many columns', bytes(`${'a,'.repeat(300)}\n${'b,'.repeat(300)}`), 'list.wide'],
  ['too many lines', bytes(`a,b\n${'1,2\n'.repeat(60_002)}`), 'list.long'],
])('CSV of %s is refused', (_name, file, code) => {
  expect(readCsv('list.csv', file)).toMatchObject({
    ok: false,
    error: { code, where: 'list.csv' },
  });
});

async function workbook(fill: (book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  fill(book);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

test('a workbook: sheets, numbers, dates, formulas by their result, rich text, empty cells', async () => {
  const file = await workbook((book) => {
    const sheet = book.addWorksheet('Devices');
    sheet.addRow(['Device list of hall 2']);
    sheet.addRow([]);
    sheet.addRow(['device', 'ip', 'row', 'since']);
    sheet.addRow(['Pump', '10.0.0.1', 7, new Date('2026-03-04T00:00:00Z')]);
    sheet.addRow([
      { richText: [{ text: 'Dr' }, { text: 'ive' }] },
      { formula: '"10.0.0."&2', result: '10.0.0.2' },
    ]);
    sheet.getCell('C6').value = 'only here';
    book.addWorksheet('Empty');
  });
  const shares: number[] = [];
  const read = await readXlsx('list.xlsx', file, (share) => shares.push(share));
  expect(read).toEqual({
    ok: true,
    value: [
      {
        name: 'Devices',
        headings: ['device', 'ip', 'row', 'since'],
        rows: [
          ['Pump', '10.0.0.1', '7', '2026-03-04'],
          ['Drive', '10.0.0.2'],
          ['', '', 'only here'],
        ],
        lines: [4, 5, 6],
      },
    ],
  });
  expect(shares.at(-1)).toBe(1);
});

test.each<[string, () => Promise<Uint8Array>, string]>([
  [
    'cut in the middle',
    async () => (await workbook((b) => b.addWorksheet('x').addRow(['a', 'b']))).slice(0, 900),
    'list.',
  ],
  ['empty', () => workbook((book) => book.addWorksheet('x')), 'list.empty'],
  ['no workbook in the archive', () => Promise.resolve(zipOf('hello.txt', 'hello')), 'list.'],
])('a workbook that is %s is refused', async (_name, make, code) => {
  const read = await readXlsx('list.xlsx', await make(), () => undefined);
  expect(read.ok ? 'read' : read.error.code).toMatch(code);
});

/** An archive of one file, as APPNOTE 4.3 lays it out. */
function zipOf(name: string, text: string): Uint8Array {
  const packed = deflateRawSync(Buffer.from(text));
  const head = Buffer.alloc(30);
  head.writeUInt32LE(0x04034b50, 0);
  head.writeUInt16LE(20, 4);
  head.writeUInt16LE(8, 8);
  head.writeUInt32LE(packed.length, 18);
  head.writeUInt32LE(text.length, 22);
  head.writeUInt16LE(name.length, 26);
  return new Uint8Array(Buffer.concat([head, Buffer.from(name), packed]));
}
