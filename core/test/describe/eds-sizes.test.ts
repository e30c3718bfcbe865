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

// The segments of a path: CIP volume 1, appendix C (from memory); 2C and 2D name what the controller sends first.
const withPath = (path: string) =>
  sheet('Param1, 4, , Param1, 8, ').replace('"Exclusive", "", ""', `"Exclusive", "", "${path}"`);

test.each([
  ['eight bits', '20 04 24 66 2C 65 2C 64', [102, 101, 100]],
  ['sixteen bits', '20 04 25 00 2C 01 2D 00 2D 01 2D 00 2E 01', [300, 301, 302]],
  ['points alone', '20 04 2C 96 2C 64', [undefined, 150, 100]],
  ['small letters', '20 04 24 0a 2c 0b 2c 0c', [10, 11, 12]],
  ['a parameter in it', '20 04 24 66 2C [Param1] 2C 64', [102, undefined, undefined]],
  ['none', '', [undefined, undefined, undefined]],
])('the instances of a connection by its path: %s', (_what, path, [config, out, into]) => {
  const [offer] = kindOf(withPath(path))?.offers ?? [];
  expect(offer).toEqual({
    ...{ title: 'Exclusive', protocol: 'EtherNet/IP', inBytes: 8, outBytes: 4 },
    ...{ configInstance: config, outInstance: out, inInstance: into },
    ...{ configBytes: undefined, intervalMillis: 4 },
  });
});

test('both parts of the configuration are its size, and a connection without a name has its key', () => {
  const text = sheet('Param1, 4, , Param1, 8, ').replace(', , , , , "Exclusive"', ', 6, , 2, , ""');
  const [offer] = kindOf(text)?.offers ?? [];
  expect([offer?.title, offer?.configBytes]).toEqual(['Connection1', 8]);
});
