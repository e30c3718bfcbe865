import {
  collisionsOf,
  nameByPattern,
  parseDhcpName,
  parsePattern,
  parseStationName,
  parseVariable,
  toHostName,
  toStationName,
  toVariable,
} from '../../src/names';
import { must } from '../../src/net';

const label63 = 'a'.repeat(63);

// R-STATION-NAME (IEC 61158-6-10, from memory).
test.each([
  'fh2-drive-1',
  'a',
  label63,
  'valves.hall-2',
  'xn--rhrwerk-n2a',
  '3',
  'port-1',
  '1.2.3',
])('%s is a station name', (text) => {
  expect(parseStationName(text)).toEqual({ ok: true, value: text });
});

test.each([
  ['', 'station.empty', ''],
  ['FH2-drive', 'station.capital', 'F'],
  ['drive_1', 'station.letter', '_'],
  ['drive 1', 'station.letter', ' '],
  ['-drive', 'station.hyphen', '-drive'],
  ['a.drive-', 'station.hyphen', 'drive-'],
  ['drive--1', 'station.doubleHyphen', 'drive--1'],
  ['a..b', 'station.label', 'a..b'],
  [`${label63}a`, 'station.label', `${label63}a`],
  ['172.22.40.86', 'station.numeric', '172.22.40.86'],
  ['port-001', 'station.port', 'port-001'],
  ['port-001-00002.hall', 'station.port', 'port-001-00002'],
  [`${`${label63}.`.repeat(4)}a`, 'station.length', `${`${label63}.`.repeat(4)}a`],
])('%j is refused as a station name: %s', (text, code, where) => {
  expect(parseStationName(text)).toMatchObject({ ok: false, error: { code, where } });
});

// R-DHCP-NAME (RFC 2132 §3.14, §9.14): any bytes, 1–255; bytes counted as UTF-8 (RFC 3629 §3).
test.each([
  ['Valves 007', undefined],
  ['ü'.repeat(127), undefined],
  ['', 'dhcpName.empty'],
  ['ü'.repeat(128), 'dhcpName.length'],
  ['€'.repeat(86), 'dhcpName.length'],
])('%# as a DHCP name', (text, code) => {
  const read = parseDhcpName(text);
  expect(read.ok ? undefined : read.error.code).toBe(code);
  expect(Buffer.byteLength(text) > 255 || text === '').toBe(code !== undefined);
});

// R-VARIABLE (IEC 61131-3 identifiers, from memory).
test.each([
  ['fh2_drive_1', undefined],
  ['_7', undefined],
  ['Drive', undefined],
  ['', 'variable.empty'],
  ['7_drive', 'variable.digit'],
  ['drive-1', 'variable.letter'],
  ['drive__1', 'variable.underscore'],
  ['drive_', 'variable.underscore'],
  ['d'.repeat(129), 'variable.length'],
])('%j as a variable', (text, code) => {
  const read = parseVariable(text);
  expect(read.ok ? undefined : read.error.code).toBe(code);
});

test('a controller that takes fewer letters refuses a longer variable', () => {
  expect(parseVariable('d'.repeat(25), 24)).toMatchObject({
    ok: false,
    error: { code: 'variable.length', facts: { have: 25, most: 24 } },
  });
});

test.each([
  ['Rührwerk 2, links', 'ruehrwerk-2-links', 'ruehrwerk-2-links', 'ruehrwerk_2_links'],
  ['FH2-Drive--1', 'fh2-drive-1', 'fh2-drive-1', 'fh2_drive_1'],
  ['Ñandú/3', 'nandu-3', 'nandu-3', 'nandu_3'],
  ['2nd pump', '2nd-pump', '2nd-pump', '_2nd_pump'],
  ['hall.drive', 'hall.drive', 'hall.drive', 'hall_drive'],
  ['…', undefined, undefined, undefined],
  ['86', undefined, '86', '_86'],
])('%j becomes %s, %s and %s', (text, host, station, variable) => {
  expect([toHostName(text), toStationName(text), toVariable(text)]).toEqual([
    host,
    station,
    variable,
  ]);
});

test('names that become one are told with their origins', () => {
  expect(collisionsOf(['Pump-1', 'pump 1', 'pump-2', 'pump-2'], toStationName)).toEqual(
    new Map([['pump-1', ['Pump-1', 'pump 1']]]),
  );
});

const VALUES = { area: 'Filling', cabinet: 'FH2', stem: 'drive', last: '86', switch: '7' };

test.each([
  ['{cabinet}-{stem}-{n}', [], 'fh2-drive-1'],
  ['{cabinet}-{stem}-{nn}', ['fh2-drive-01', 'fh2-drive-03'], 'fh2-drive-02'],
  ['{area}.{stem}{n:3}', [], 'filling.drive001'],
  ['{stem}-{last:3}', [], 'drive-086'],
  ['{stem}-{switch:3}', ['drive-007'], 'drive-007-2'],
  ['{position}-{stem}', [], 'drive'],
  ['{position}', ['device'], 'device-2'],
])('%s with %j taken gives %s', (text, taken, name) => {
  expect(nameByPattern(must(parsePattern(text)), VALUES, new Set(taken))).toBe(name);
});

test.each([
  ['', 'pattern.empty', ''],
  ['{stem', 'pattern.brace', '{stem'],
  ['a}b', 'pattern.brace', '}b'],
  ['{colour}', 'pattern.word', 'colour'],
  ['{n:0}', 'pattern.brace', '{n:0}'],
])('the pattern %j is refused as %s', (text, code, where) => {
  expect(parsePattern(text)).toMatchObject({ ok: false, error: { code, where } });
});
