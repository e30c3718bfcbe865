import { type MacAddress, toMac } from '../net';
import {
  DecodeError,
  encodeWith,
  expect,
  freshBytes,
  need,
  put16,
  put32,
  putBytes,
  u16,
  u32,
  u8,
  type Codec,
} from './codec';
import { ethernet, ETHERTYPE } from './ethernet';

// Discovery and basic configuration over layer 2, the protocol by which stations of PROFINET are found
// and named (IEC 61158-6-10; from memory, confirmed with tshark's dissector). It never crosses a router.

/** All stations listen to this group address. */
export const DISCOVERY_GROUP: MacAddress = toMac(0x010ecf000000);

const ACTS = { get: 3, set: 4, identify: 5, hello: 6 } as const;
const TYPES = { request: 0, success: 1, unsupported: 5 } as const;
const FRAME = { hello: 0xfefc, getSet: 0xfefd, identify: 0xfefe, identified: 0xfeff } as const;

type DiscoveryAct = keyof typeof ACTS;
type DiscoveryType = keyof typeof TYPES;

/** One block: what it is about by option and suboption, and its value. */
export interface DiscoveryBlock {
  readonly option: number;
  readonly suboption: number;
  /**
   * The two bytes before the value: in a set how it is meant (see `QUALIFIER`), in an answer how the
   * value came about. Absent where such a block has none.
   */
  readonly word: number | undefined;
  readonly data: Uint8Array;
}

export interface DiscoveryMessage {
  readonly act: DiscoveryAct;
  readonly type: DiscoveryType;
  /** 32 bits; an answer repeats that of its request. */
  readonly transaction: number;
  /** Of an identify request: answers are spread over so many hundredths of a second. */
  readonly delay: number;
  readonly blocks: readonly DiscoveryBlock[];
}

/** What blocks are about: option and suboption. */
export const BLOCK = {
  mac: [1, 1],
  address: [1, 2],
  stationType: [2, 1],
  stationName: [2, 2],
  deviceId: [2, 3],
  deviceRole: [2, 4],
  signal: [5, 3],
  response: [5, 4],
  factory: [5, 6],
  everything: [255, 255],
} as const satisfies Readonly<Record<string, readonly [number, number]>>;

/** How a set is meant: bit 0 keeps it beyond power-off; for a reset the rest says what is reset. */
export const QUALIFIER = { temporary: 0, stored: 1, resetCommunication: 4 } as const;

const HEAD = 12;

const keyOf = <T extends Readonly<Record<string, number>>>(
  table: T,
  value: number,
): keyof T | undefined => Object.keys(table).find((key) => table[key] === value);

const isBlock = (
  { option, suboption }: Pick<DiscoveryBlock, 'option' | 'suboption'>,
  name: keyof typeof BLOCK,
): boolean => option === BLOCK[name][0] && suboption === BLOCK[name][1];

type Kind = Pick<DiscoveryMessage, 'act' | 'type'>;

/** A get names what it wants to know and nothing more: no length, no value. */
const isBare = ({ act, type }: Kind): boolean => act === 'get' && type === 'request';

const hasWord = ({ act, type }: Kind, block: Pick<DiscoveryBlock, 'option' | 'suboption'>) =>
  !(act === 'identify' && type === 'request') && !isBlock(block, 'response');

const frameIdOf = ({ act, type }: Kind): number => {
  if (act === 'hello') return FRAME.hello;
  if (act !== 'identify') return FRAME.getSet;
  return type === 'request' ? FRAME.identify : FRAME.identified;
};

const valueLength = ({ word, data }: DiscoveryBlock): number =>
  data.length + (word === undefined ? 0 : 2);

function blockLength(kind: Kind, block: DiscoveryBlock): number {
  if (isBare(kind)) return 2;
  const length = valueLength(block);
  return 4 + length + (length & 1);
}

const blocksLength = (message: DiscoveryMessage): number =>
  message.blocks.reduce((sum, block) => sum + blockLength(message, block), 0);

function putBlock(kind: Kind, block: DiscoveryBlock, bytes: Uint8Array, at: number): number {
  bytes[at] = block.option;
  bytes[at + 1] = block.suboption;
  if (isBare(kind)) return at + 2;
  const length = valueLength(block);
  let next = put16(bytes, at + 2, length);
  if (block.word !== undefined) next = put16(bytes, next, block.word);
  next = putBytes(bytes, next, block.data);
  if (length & 1) bytes[next++] = 0;
  return next;
}

function readBlock(kind: Kind, bytes: Uint8Array, at: number, end: number) {
  need('discovery.block', at, end, 2);
  const about = { option: u8(bytes, at), suboption: u8(bytes, at + 1) };
  if (isBare(kind))
    return { block: { ...about, word: undefined, data: bytes.subarray(at, at) }, next: at + 2 };
  need('discovery.blockLength', at + 2, end, 2);
  const length = u16(bytes, at + 2);
  const from = at + 4;
  need('discovery.value', from, end, length);
  const isWorded = hasWord(kind, about);
  if (isWorded) need('discovery.word', from, from + length, 2);
  const word = isWorded ? u16(bytes, from) : undefined;
  const data = bytes.subarray(from + (isWorded ? 2 : 0), from + length);
  // The last block of some stations is not filled up to an even length.
  return { block: { ...about, word, data }, next: Math.min(end, from + length + (length & 1)) };
}

function readKind(bytes: Uint8Array, at: number): Kind {
  const act = keyOf(ACTS, u8(bytes, at + 2));
  const type = keyOf(TYPES, u8(bytes, at + 3));
  if (!act) throw new DecodeError('discovery.act', at + 2, 3, u8(bytes, at + 2));
  if (!type) throw new DecodeError('discovery.type', at + 3, 0, u8(bytes, at + 3));
  expect('discovery.frameId', at, frameIdOf({ act, type }), u16(bytes, at));
  return { act, type };
}

/** One message, from its frame id on. What follows the last block is padding of the frame. */
export const discovery: Codec<DiscoveryMessage> = {
  length: (message) => HEAD + blocksLength(message),
  encode(message, bytes, at) {
    put16(bytes, at, frameIdOf(message));
    bytes[at + 2] = ACTS[message.act];
    bytes[at + 3] = TYPES[message.type];
    put32(bytes, at + 4, message.transaction);
    put16(bytes, at + 8, message.delay);
    let next = put16(bytes, at + 10, blocksLength(message));
    for (const block of message.blocks) next = putBlock(message, block, bytes, next);
    return next;
  },
  decode(bytes, at, end) {
    need('discovery.head', at, end, HEAD);
    const kind = readKind(bytes, at);
    const length = u16(bytes, at + 10);
    need('discovery.blocks', at + HEAD, end, length);
    const last = at + HEAD + length;
    const blocks: DiscoveryBlock[] = [];
    for (let next = at + HEAD; next < last;) {
      const read = readBlock(kind, bytes, next, last);
      blocks.push(read.block);
      next = read.next;
    }
    const head = { transaction: u32(bytes, at + 4), delay: u16(bytes, at + 8) };
    return { value: { ...kind, ...head, blocks }, next: last };
  },
};

/** Other frames of the same EtherType carry process data; their ids lie elsewhere. */
export const isDiscovery = (payload: Uint8Array): boolean =>
  payload.length >= 2 && u16(payload, 0) >= FRAME.hello && u16(payload, 0) <= FRAME.identified;

/** The shortest frame without its check sequence (IEEE 802.3): real adapters fill up, ours must not differ. */
const SHORTEST = 60;

export function discoveryFrame(
  from: MacAddress,
  to: MacAddress,
  message: DiscoveryMessage,
): Uint8Array {
  const payload = encodeWith(discovery, message);
  const bytes = freshBytes(Math.max(SHORTEST, 14 + payload.length));
  ethernet.encode({ from, to, etherType: ETHERTYPE.discovery, payload }, bytes, 0);
  return bytes;
}
