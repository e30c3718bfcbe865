import {
  checkLabel,
  formatMac,
  isDeviceMac,
  judgeLabel,
  must,
  parseLabel,
  parseMac,
} from '../../src/net';

const mac = (text: string) => must(parseMac(text));

// R-MAC, R-LABEL
test.each([
  '02:00:5e:00:53:01',
  '02-00-5E-00-53-01',
  '02 00 5e 00 53 01',
  '0200.5e00.5301',
  '02005E005301',
])('%s is read and written in one form', (text) => {
  expect(formatMac(mac(text))).toBe('02:00:5e:00:53:01');
});

test.each([
  ['02:00:5e:00:53', 'mac.length'],
  ['02:00-5e:00:53:01', 'mac.notation'],
  ['02:00:5e:00:53:0g', 'mac.notation'],
  ['', 'mac.length'],
])('%j is refused as %s', (text, code) => {
  expect(parseMac(text)).toMatchObject({ ok: false, error: { code } });
});

test('group and zero addresses are no device', () => {
  expect(
    ['ff:ff:ff:ff:ff:ff', '01:0e:cf:00:00:00', '00:00:00:00:00:00'].map((m) => isDeviceMac(mac(m))),
  ).toEqual([false, false, false]);
  expect(isDeviceMac(mac('02:00:5e:00:53:01'))).toBe(true);
});

test('letters that cannot be hex are repaired and told', () => {
  const reading = parseLabel('MAC: O2-4C-7A-1D-8O-S3');
  expect(reading).toMatchObject({ ok: true });
  if (!reading.ok) return;
  expect(formatMac(reading.value.mac)).toBe('02:4c:7a:1d:80:53');
  expect(reading.value.repairs.map(({ from, to }) => from + to)).toEqual(['O0', 'O0', 'S5']);
});

// Look-alikes on worn labels: common practice, no source.
test.each([
  ['02:4c:7a:1d:80:d3', '02:4c:7a:1d:80:03', { kind: 'alike', place: 10 }],
  ['02:4c:7a:1d:80:d3', '02:4c:7a:1d:80:d3', { kind: 'same' }],
  ['02:4c:7a:1d:80:d3', '02:4c:7a:1d:80:d4', { kind: 'near', distance: 1 }],
  ['02:4c:7a:1d:80:d3', '02:4c:7a:22:05:9e', { kind: 'other', places: 6 }],
])('label %s against %s', (label, heard, verdict) => {
  expect(judgeLabel(mac(label), mac(heard))).toEqual(verdict);
  const wrong = checkLabel(mac(label), mac(heard)).filter((check) => !check.same);
  expect(wrong.length === 0).toBe(label === heard);
});
