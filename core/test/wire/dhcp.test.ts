import {
  decodeWith,
  DecodeError,
  dhcpMessage,
  encodeWith,
  findOption,
  kindOfMessage,
  OPTION,
  optionName,
  toHex,
} from '../../src/wire';
import { discover, ip, LONG_OPTION } from './samples';

test('RFC 3396: an option of 300 bytes is split into 255 and 45 and joined again', () => {
  const bytes = encodeWith(dhcpMessage, { ...discover, options: [LONG_OPTION] });
  expect([bytes[240], bytes[241], bytes[497], bytes[498]]).toEqual([43, 255, 43, 45]);
  expect(decodeWith(dhcpMessage, bytes).options).toEqual([LONG_OPTION]);
});

test('an option of exactly 255 bytes is not split, an empty one is kept', () => {
  const options = [
    { code: 43, data: new Uint8Array(255) },
    { code: 80, data: new Uint8Array(0) },
  ];
  const bytes = encodeWith(dhcpMessage, { ...discover, options });
  expect(decodeWith(dhcpMessage, bytes).options).toEqual(options);
  expect(toHex(bytes.subarray(497))).toBe('5000ff');
});

// RFC 2132 §9.3, joined in the order of RFC 3396 §5: options, boot file, server name.
test.each([
  [1, ['boot']],
  [2, ['name']],
  [3, ['boot', 'name']],
])('overload %i reads the other fields', (overload, expected) => {
  const bytes = encodeWith(dhcpMessage, {
    ...discover,
    options: [
      { code: 52, data: Uint8Array.of(overload) },
      { code: 12, data: Uint8Array.of(0x61) },
    ],
  });
  bytes.set([12, 4, ...Buffer.from('boot'), 255], 108);
  bytes.set([12, 4, ...Buffer.from('name'), 255], 44);
  const message = decodeWith(dhcpMessage, bytes);
  expect(findOption(message.options ?? [], OPTION.hostName)).toBe('a' + expected.join(''));
  expect(message.options?.some((option) => option.code === 52)).toBe(false);
});

test('an option that reaches beyond the field is refused with its place', () => {
  const bytes = encodeWith(dhcpMessage, { ...discover, options: [] });
  bytes.set([12, 200], 240);
  expect(() => decodeWith(dhcpMessage, bytes)).toThrow(DecodeError);
  expect(() => decodeWith(dhcpMessage, bytes)).toThrow(
    'dhcp.option at byte 242: need 200, have 58',
  );
});

test.each([
  ['no options at all', { ...discover, options: [] }, 'BootP request'],
  ['no cookie', { ...discover, options: undefined }, 'BootP request'],
  ['a type of 1', discover, 'DISCOVER'],
])('%s is called %s', (_name, message, kind) => {
  expect(kindOfMessage(message)).toBe(kind);
});

test('options of the wrong length are no value, the bytes stay', () => {
  const options = [{ code: 50, data: Uint8Array.of(1, 2, 3) }];
  expect(findOption(options, OPTION.requestedAddress)).toBeUndefined();
  expect(optionName(50)).toBe('requested address');
  expect(optionName(43)).toBe('option 43');
  expect(OPTION.routers.decode(OPTION.routers.encode([ip('10.0.0.1')]))).toEqual([ip('10.0.0.1')]);
});
