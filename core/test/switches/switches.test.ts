import { formatIpv4, must, parseIpv4, parsePrefix } from '../../src/net';
import {
  addressesBySwitches,
  nameBySwitches,
  readSwitches,
  setForAct,
  setForAddress,
  type SwitchElement,
  type SwitchFace,
} from '../../src/switches';

// Dials and DIP switches as the trade has them: common practice, no source.

const net = must(parsePrefix('172.22.40.0/24'));
const ip = (text: string) => must(parseIpv4(text));

const dial = (positions: number, weight: number): SwitchElement => ({
  ...{ kind: 'dial', label: `×${weight}`, positions, look: 'rotary', weight, use: 'number' },
});

const numbers = (to: number): SwitchFace['meanings'] => [
  { mode: undefined, from: 1, to, act: { kind: 'last-number' } },
];

const DECIMAL: SwitchFace = {
  elements: [dial(10, 100), dial(10, 10), dial(10, 1)],
  meanings: [...numbers(254), { mode: undefined, from: 999, to: 999, act: { kind: 'factory' } }],
  base: undefined,
};
const HEX: SwitchFace = {
  elements: [dial(16, 16), dial(16, 1)],
  meanings: numbers(254),
  base: undefined,
};
const dip = (weights: readonly number[]): SwitchFace => ({
  elements: [{ kind: 'dip', label: 'S1', weights, use: 'number' }],
  meanings: numbers(254),
  base: undefined,
});

test.each([
  ['three decimal dials at 0-8-6', DECIMAL, [0, 8, 6], 86],
  ['two hex dials at 6-4', HEX, [6, 4], 0x64],
  ['DIP switches 64 + 32 + 4', dip([128, 64, 32, 16, 8, 4, 2, 1]), [0, 1, 1, 0, 0, 1, 0, 0], 100],
  [
    'the same row with the lowest first',
    dip([1, 2, 4, 8, 16, 32, 64, 128]),
    [0, 0, 1, 0, 0, 1, 1],
    100,
  ],
])('%s', (_text, face, seen, value) => {
  const positions = face.elements[0]?.kind === 'dip' ? [...seen, 0].slice(0, 8) : seen;
  const reading = must(readSwitches(face, positions));
  expect(reading.value).toBe(value);
  const address = ip(`172.22.40.${value}`);
  expect(must(setForAddress(face, address, net)).positions).toEqual(positions);
});

test.each([
  [[0, 8], 'switches.count'],
  [[0, 8, 10], 'switches.position'],
  [[0, -1, 1], 'switches.position'],
  [[0, 0.5, 1], 'switches.position'],
])('positions %j are refused as %s', (positions, code) => {
  expect(readSwitches(DECIMAL, positions)).toMatchObject({ ok: false, error: { code } });
});

test('what the number means beyond addresses is found both ways', () => {
  expect(must(readSwitches(DECIMAL, [9, 9, 9])).act).toEqual({ kind: 'factory' });
  expect(must(setForAct(DECIMAL, 'factory', ({ kind }) => kind === 'factory')).positions).toEqual([
    9, 9, 9,
  ]);
  expect(must(readSwitches(DECIMAL, [3, 0, 0])).act).toBeUndefined();
});

test('only the hosts of the network can be set, whatever the dials could say', () => {
  const small = must(parsePrefix('172.22.40.64/29'));
  expect([...addressesBySwitches(DECIMAL, small)].map(formatIpv4)).toEqual(
    [65, 66, 67, 68, 69, 70].map((last) => `172.22.40.${last}`),
  );
  expect(setForAddress(DECIMAL, ip('172.22.41.5'), net)).toMatchObject({
    ok: false,
    error: { code: 'switches.base' },
  });
});

test.each([
  ['valves-{nnn}', 7, 'valves-007'],
  ['v{n}', 12, 'v12'],
])('the name %s with %i is %s', (pattern, value, name) => {
  expect(nameBySwitches(pattern, value)).toBe(name);
});
