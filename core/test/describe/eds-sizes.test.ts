import { readEds } from '../../src/describe';

// CIP volume 1, chapter 7 (from memory): what a connection's size and interval name, and what a text may hold.

const sheet = (connection: string, more = '', name = 'Block') => `
[Device]
  VendCode = 65206; ProdType = 12; ProdCode = 3; MajRev = 1; MinRev = 1;
  ProdName = "${name}";
[Params]
  Param1 = 0,,,0x0000,0xC8,4,"RPI","us","", 4000, 100000, 20000;
  Param2 = 0,,,0x0000,0xC7,2,"Word","","", 0, 65535, 0;
[Assembly]
  Assem1 = "in", "20 04 24 65 30 03", 12, 0x0000,,, 96,;
  Assem2 = "out", "20 04 24 66 30 03", , 0x0000,,, 8,, 12,, 4,, ,Param2;
${more}
[Connection Manager]
  Connection1 = 0x04010002, 0x44640405, ${connection}, , , , , "Exclusive", "", "";
`;

const kindOf = (text: string) => {
  const read = readEds(text);
  if (typeof read === 'string') throw new Error(read);
  return read.kinds[0];
};

test.each([
  [
    'the least interval is the minimum of its parameter, not its default',
    'Param1, 4, , Param1, 8, ',
    4,
    [4, 8],
  ],
  ['an interval that stands there', '10000, 4, , 12000, 8, ', 10, [4, 8]],
  ['an empty size is that of its assembly', 'Param1, , Assem1, Param1, 8, ', 4, [8, 12]],
  [
    'or the sum of its members: 8, 12 and 4 bits, and a word',
    'Param1, 4, , Param1, , Assem2',
    4,
    [4, 5],
  ],
  ['an empty size of nothing is none', 'Param1, , , Param1, 8, ', 4, [8]],
])('%s', (_what, connection, interval, sizes) => {
  const kind = kindOf(sheet(connection));
  expect([kind?.leastIntervalMillis, kind?.offeredSizes]).toEqual([interval, sizes]);
});

test.each([
  ['Block \\"small\\"', 'Block "small"'],
  ['C:\\\\tools', 'C:\\tools'],
  ['a; b, c $ d', 'a; b, c $ d'],
  ['ends with \\\\', 'ends with \\'],
])('a text %s', (written, read) => {
  expect(kindOf(sheet('Param1, 4, , Param1, 8, ', '', written))?.name).toBe(read);
});
