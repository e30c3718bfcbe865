import { DecodeError, decodeWith, lldp, neighbourOf, tryDissect } from '../../src/wire';
import { DEVICE, frames, NEIGHBOUR } from './samples';

const text = (value: string) => Uint8Array.from(value, (letter) => letter.charCodeAt(0));

test('what a switch says of the port the cable is in', () => {
  expect(neighbourOf(DEVICE, NEIGHBOUR)).toEqual({
    ...{ mac: DEVICE, system: 'hall-switch', port: 'port5', portDescription: 'to cabinet FH2' },
    ...{ vlan: 40, address: '172.22.40.2', seconds: 120 },
  });
});

const without = (type: number) => NEIGHBOUR.filter((one) => one.type !== type);

test.each([
  ['no name: its chassis stands for it', without(5), { system: '02:00:5e:00:53:01' }],
  ['no VLAN', without(127), { vlan: undefined }],
  ['no address', without(8), { address: undefined }],
  [
    'a port named by its MAC',
    [...without(2), { type: 2, data: Uint8Array.of(3, 2, 0, 0x5e, 0, 0x53, 9) }],
    { port: '02:00:5e:00:53:09' },
  ],
  [
    'a port of bytes that are no text',
    [...without(2), { type: 2, data: Uint8Array.of(7, 0, 1, 2) }],
    { port: '000102' },
  ],
  [
    'a chassis named by its address',
    [
      ...without(1).filter((one) => one.type !== 5),
      { type: 1, data: Uint8Array.of(5, 1, 10, 0, 0, 9) },
    ],
    { system: '10.0.0.9' },
  ],
])('%s', (_what, elements, expected) => {
  expect(neighbourOf(DEVICE, elements)).toMatchObject(expected);
});

test.each([1, 2, 3])('without element %i it is nobody', (type) => {
  expect(neighbourOf(DEVICE, without(type))).toBeUndefined();
});

test('a message without its end, and one with an element that is cut, are errors', () => {
  const error = (bytes: Uint8Array) => {
    try {
      return decodeWith(lldp, bytes);
    } catch (thrown) {
      return thrown instanceof DecodeError ? thrown.code : thrown;
    }
  };
  expect(error(Uint8Array.of(2, 1, 7))).toBe('lldp.element');
  expect(error(Uint8Array.of(2, 9, 7))).toBe('lldp.value');
  expect(error(text('ab'))).toBe('lldp.value');
});

test('it is read as a whole frame', () => {
  const read = tryDissect(frames['lldp'] ?? new Uint8Array(0));
  expect(read instanceof DecodeError ? read.code : read.kind).toBe('lldp');
});
