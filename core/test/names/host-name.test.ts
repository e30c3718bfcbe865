import fc from 'fast-check';
import { parseHostName, proposeName } from '../../src';

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

test('a proposed name is free, allowed, and the lowest number that is', () => {
  expect(proposeName('FH2', 'drive', new Set(['fh2-drive-1', 'fh2-drive-3']))).toBe('fh2-drive-2');
  expect(proposeName('', '', new Set())).toBe('device-1');
  expect(proposeName('Schrank 7/Ü', 'drive', new Set())).toBe('schrank-7-drive-1');
  fc.assert(
    fc.property(fc.string(), fc.string(), (cabinet, role) => {
      const taken = new Set<string>();
      for (let i = 0; i < 3; i += 1) {
        const name = proposeName(cabinet, role, taken);
        expect(parseHostName(name)).toEqual({ ok: true, value: name });
        expect(taken.has(name)).toBe(false);
        taken.add(name);
      }
    }),
    { seed: 1123 },
  );
});
