import {
  DecodeError,
  discoveryFrame,
  DISCOVERY_GROUP,
  encodeWith,
  ethernet,
  identifyAll,
  orderOf,
  tryDissect,
} from '@ipsonomo/core/wire';
import { spoil, type Quirk } from '../src/quirks';
import { LAPTOP, mac } from './helpers';

const DEVICE = mac('02:4c:7a:71:00:21');
const asked = discoveryFrame(LAPTOP, DISCOVERY_GROUP, identifyAll(0x01020304, 64));
const named = discoveryFrame(
  DEVICE,
  LAPTOP,
  orderOf(9, { kind: 'name', name: 'sl1-block-1', stay: 'stored' }),
);
/** As short frames travel: filled up to 60 bytes. */
const filled = encodeWith(ethernet, {
  ...{ to: LAPTOP, from: DEVICE, etherType: 0x8892 },
  payload: new Uint8Array([...named.slice(14), ...new Uint8Array(60)]),
});

const withQuirk = (frame: Uint8Array, ...quirks: Quirk[]) => spoil(frame, new Set(quirks));

test.each([
  ['a question', asked],
  ['a set', named],
  ['a set that was filled up', filled],
])('%s that is cut cannot be read, wherever it would end', (_what, frame) => {
  expect(tryDissect(frame)).not.toBeInstanceOf(DecodeError);
  expect(tryDissect(withQuirk(frame, 'cut-answer'))).toBeInstanceOf(DecodeError);
});

test('another transaction is read, and is another', () => {
  const spoiled = tryDissect(withQuirk(asked, 'other-transaction'));
  if (spoiled instanceof DecodeError || spoiled.kind !== 'discovery') throw new Error('unread');
  expect(spoiled.discovery.transaction).toBe(0xfe020304);
});

test('nothing wrong, nothing changed', () => {
  expect(withQuirk(asked)).toBe(asked);
  expect(withQuirk(asked, 'owned', 'capital-name')).toBe(asked);
});
