import { parseHostName } from '../../src/names';

const label63 = 'a'.repeat(63);
const name253 = [label63, label63, label63, 'a'.repeat(61)].join('.');

// R-HOST-NAME: RFC 952, RFC 1123 §2.1, RFC 1035 §2.3.1 and §2.3.4.
test.each([
  ['fh2-drive-2', 'fh2-drive-2'],
  ['FH2-Drive-2', 'fh2-drive-2'],
  ['3com', '3com'],
  ['a', 'a'],
  [label63, label63],
  [name253, name253],
  ['drive.hall.example', 'drive.hall.example'],
])('%s is a host name', (text, name) => {
  expect(parseHostName(text)).toEqual({ ok: true, value: name });
});

test.each([
  ['', 'name.empty', ''],
  ['drum drive', 'name.space', 'drum drive'],
  ['drum_drive', 'name.letter', '_'],
  ['trommel-ü', 'name.letter', 'ü'],
  ['-drive', 'name.hyphen', '-drive'],
  ['drive-', 'name.hyphen', 'drive-'],
  ['a.-b', 'name.hyphen', '-b'],
  ['a..b', 'name.label', 'a..b'],
  ['.a', 'name.label', '.a'],
  ['a.', 'name.label', 'a.'],
  [`${label63}a`, 'name.label', `${label63}a`],
  [`${name253}a`, 'name.length', `${name253}a`],
  ['172.22.40.86', 'name.numeric', '172.22.40.86'],
  ['86', 'name.numeric', '86'],
])('%j is refused as %s', (text, code, where) => {
  expect(parseHostName(text)).toMatchObject({ ok: false, error: { code, where } });
});
