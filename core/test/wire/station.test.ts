import {
  answerToSet,
  decodeWith,
  discovery,
  dissect,
  encodeWith,
  identifyName,
  nameAskedFor,
  orderOf,
  outcomeOf,
  realModules,
  stationOf,
  STATION_REFUSALS,
  tryDissect,
  type DiscoveryMessage,
} from '../../src/wire';
import { OLD_MODULES } from './record-samples';
import { DEVICE, frames, ip, STATION } from './samples';

const named = orderOf(7, { kind: 'name', name: 'sl1-block-1', stay: 'stored' });

test('a station tells of itself', () => {
  const frame = dissect(frames['station'] ?? new Uint8Array(0));
  if (frame.kind !== 'discovery') throw new Error(frame.kind);
  expect(stationOf(frame.ethernet.from, frame.discovery)).toEqual(STATION);
});

test.each([
  ['no name', [[2, 2, 0, '']], { name: '' }],
  ['a name that ends in zeros', [[2, 2, 0, 'block\0\0']], { name: 'block' }],
  ['a block cut short', [[1, 2, 0, 'short']], { address: undefined }],
  ['half an identity', [[2, 3, 0, 'ab']], { vendor: undefined }],
  ['nothing at all', [], { name: undefined, address: undefined, type: undefined }],
] as const)('a station with %s', (_what, blocks, expected) => {
  const text = (value: string) => Uint8Array.from(value, (letter) => letter.charCodeAt(0));
  const message: DiscoveryMessage = {
    ...{ act: 'identify', type: 'success', transaction: 1, delay: 0 },
    blocks: blocks.map(([option, suboption, word, value]) => ({
      ...{ option, suboption, word, data: text(value) },
    })),
  };
  const read = decodeWith(discovery, encodeWith(discovery, message));
  expect(stationOf(DEVICE, read)).toMatchObject({ mac: DEVICE, ...expected });
});

test.each([
  [0x0001, '172.22.40.104', 'set'],
  [0x0002, '172.22.40.104', 'by-dhcp'],
  [0x0081, '172.22.40.104', 'conflict'],
  [0x0001, '0.0.0.0', 'none'],
])('the state of an address: word %i with %s is %s', (word, address, state) => {
  const data = new Uint8Array(12);
  ip(address)
    .toString(2)
    .padStart(32, '0')
    .match(/.{8}/g)
    ?.forEach((bits, at) => (data[at] = parseInt(bits, 2)));
  const blocks = [{ option: 1, suboption: 2, word, data }];
  const message = { act: 'identify', type: 'success', transaction: 1, delay: 0 } as const;
  expect(stationOf(DEVICE, { ...message, blocks }).address?.state).toBe(state);
});

test.each([...STATION_REFUSALS.entries(), [9, 'unknown'] as const])(
  'an answer with code %i means %s',
  (code, outcome) => expect(outcomeOf(answerToSet(named, [code]))).toBe(outcome),
);

test('the first refusal of several counts; an empty answer is none that is known', () => {
  const two = { ...named, blocks: [...named.blocks, ...named.blocks] };
  expect(outcomeOf(answerToSet(two, [0, 5]))).toBe('local');
  expect(outcomeOf({ ...named, type: 'success', blocks: [] })).toBe('unknown');
  expect(outcomeOf({ ...named, type: 'unsupported', blocks: [] })).toBe('unsupported');
  expect(outcomeOf(named)).toBeUndefined();
});

test('who has a name asks for just that', () => {
  expect(nameAskedFor(identifyName(1, 'Sl1-block'))).toBe('Sl1-block');
});

test.each([
  ['process data of the same type is no discovery', { 14: 0x80, 15: 0x00 }, 'ethernet'],
  ['an unknown act', { 16: 9 }, 'discovery.act at byte 16: need 3, have 9'],
  ['an unknown answer', { 17: 3 }, 'discovery.type at byte 17: need 0, have 3'],
  ['an id that does not fit', { 15: 0xfe }, 'discovery.frameId at byte 14: need 65279, have 65278'],
  ['more blocks than there are bytes', { 24: 9 }, 'discovery.blocks at byte 26'],
  ['a block longer than its message', { 29: 200 }, 'discovery.value at byte 30'],
] as const)('%s', (_what, changes, expected) => {
  const bytes = (frames['station'] ?? new Uint8Array(0)).slice();
  for (const [at, byte] of Object.entries(changes)) bytes[Number(at)] = byte;
  const read = tryDissect(bytes);
  expect(read instanceof Error ? read.message : read.kind).toMatch(expected);
});

test('modules as an older station tells them: version 1.0, which names no profile', () => {
  expect(decodeWith(realModules, OLD_MODULES)).toEqual([
    { slot: 2, ident: 0x22, submodules: [{ subslot: 1, ident: 5 }] },
  ]);
});
