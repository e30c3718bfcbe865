import { maskOf, UNSPECIFIED, type Ipv4, type MacAddress, type PrefixLength } from '../net';
import { fromLatin1, put16, putBytes, readIpv4, readMac, toLatin1, u16, u8, put32 } from './codec';
import { BLOCK, QUALIFIER, type DiscoveryBlock, type DiscoveryMessage } from './discovery';

// What is asked of a station by discovery, and what it says of itself (IEC 61158-6-10; from memory).

/** The address of a station as it tells it. */
interface StationAddress {
  readonly address: Ipv4;
  readonly mask: Ipv4;
  readonly gateway: Ipv4;
  /** `conflict`: another device has it too. */
  readonly state: 'none' | 'set' | 'by-dhcp' | 'conflict';
}

/** What one station answered. A value it did not tell is undefined; an empty name is `''`. */
export interface Station {
  readonly mac: MacAddress;
  readonly name: string | undefined;
  /** The kind in its maker's words. */
  readonly type: string | undefined;
  readonly vendor: number | undefined;
  readonly device: number | undefined;
  readonly address: StationAddress | undefined;
}

/** Does an address outlive the next power-off? */
export type Stay = 'temporary' | 'stored';

const NOTHING = new Uint8Array(0);
const block = (
  about: readonly [number, number],
  word: number | undefined,
  data: Uint8Array,
): DiscoveryBlock => ({ option: about[0], suboption: about[1], word, data });

const find = (message: DiscoveryMessage, about: readonly [number, number]) =>
  message.blocks.find((one) => one.option === about[0] && one.suboption === about[1]);

const ADDRESS_STATE = ['none', 'set', 'by-dhcp', 'set'] as const;
const CONFLICT = 0x80;

function addressOf(message: DiscoveryMessage): StationAddress | undefined {
  const found = find(message, BLOCK.address);
  if (!found || found.data.length < 12) return undefined;
  const word = found.word ?? 0;
  const address = readIpv4(found.data, 0);
  const said = ADDRESS_STATE[word & 3] ?? 'set';
  const state = word & CONFLICT ? 'conflict' : address === UNSPECIFIED ? 'none' : said;
  return { address, mask: readIpv4(found.data, 4), gateway: readIpv4(found.data, 8), state };
}

/** Reads what a station says of itself in an answer to identify, or in a hello. */
export function stationOf(from: MacAddress, message: DiscoveryMessage): Station {
  const text = (about: readonly [number, number]) => {
    const found = find(message, about);
    return found && toLatin1(found.data).replace(/\0+$/, '');
  };
  const id = find(message, BLOCK.deviceId)?.data;
  const own = find(message, BLOCK.mac)?.data;
  return {
    mac: own && own.length >= 6 ? readMac(own, 0) : from,
    name: text(BLOCK.stationName),
    type: text(BLOCK.stationType),
    vendor: id && id.length >= 4 ? u16(id, 0) : undefined,
    device: id && id.length >= 4 ? u16(id, 2) : undefined,
    address: addressOf(message),
  };
}

/** The answer of a station, so that `stationOf` reads the same. */
export const blocksOfStation = (station: Station): readonly DiscoveryBlock[] => {
  const { name, type, vendor, device, address } = station;
  const blocks: DiscoveryBlock[] = [];
  if (type !== undefined) blocks.push(block(BLOCK.stationType, 0, fromLatin1(type)));
  if (name !== undefined) blocks.push(block(BLOCK.stationName, 0, fromLatin1(name)));
  if (vendor !== undefined) {
    const id = new Uint8Array(4);
    put16(id, put16(id, 0, vendor), device ?? 0);
    blocks.push(block(BLOCK.deviceId, 0, id));
  }
  blocks.push(block(BLOCK.deviceRole, 0, Uint8Array.of(1, 0)));
  if (address) {
    const word = { none: 0, set: 1, 'by-dhcp': 2, conflict: CONFLICT | 1 }[address.state];
    blocks.push(block(BLOCK.address, word, addressBytes(address)));
  }
  return blocks;
};

function addressBytes(value: Pick<StationAddress, 'address' | 'mask' | 'gateway'>): Uint8Array {
  const data = new Uint8Array(12);
  put32(data, put32(data, put32(data, 0, value.address), value.mask), value.gateway);
  return data;
}

const request = (
  act: DiscoveryMessage['act'],
  transaction: number,
  blocks: readonly DiscoveryBlock[],
  delay = 0,
): DiscoveryMessage => ({ act, type: 'request', transaction, delay, blocks });

/** Answers are spread over so many milliseconds by this factor. */
export const responseWindow = (delay: number): number => delay * 10;

/** Who is there? @param delay 1–6400, hundredths of a second over which answers are spread */
export const identifyAll = (transaction: number, delay: number): DiscoveryMessage =>
  request('identify', transaction, [block(BLOCK.everything, undefined, NOTHING)], delay);

/** Who has this name? */
export const identifyName = (transaction: number, name: string): DiscoveryMessage =>
  request('identify', transaction, [block(BLOCK.stationName, undefined, fromLatin1(name))], 1);

/** The name an identify request asks for; undefined where it asks everybody. */
export function nameAskedFor(message: DiscoveryMessage): string | undefined {
  const found = find(message, BLOCK.stationName);
  return found && toLatin1(found.data);
}

/** What is to be set in a station, one thing a message. */
export type StationOrder =
  | { readonly kind: 'name'; readonly name: string; readonly stay: Stay }
  | {
      readonly kind: 'address';
      readonly address: Ipv4;
      readonly length: PrefixLength;
      /** Its own address where there is none, as is the custom of this protocol (from memory). */
      readonly gateway: Ipv4 | undefined;
      readonly stay: Stay;
    }
  /** No address at all: its controller gives it one. */
  | { readonly kind: 'no-address'; readonly stay: Stay }
  /** Its lamp flashes for three seconds. */
  | { readonly kind: 'flash' }
  /** Name and address as it left its maker. */
  | { readonly kind: 'factory' };

const FLASH = Uint8Array.of(1, 0);

function orderBlock(order: StationOrder): DiscoveryBlock {
  switch (order.kind) {
    case 'name':
      return block(BLOCK.stationName, QUALIFIER[order.stay], fromLatin1(order.name));
    case 'address': {
      const { address, length, stay } = order;
      const gateway = order.gateway ?? address;
      const data = addressBytes({ address, mask: maskOf(length), gateway });
      return block(BLOCK.address, QUALIFIER[stay], data);
    }
    case 'no-address':
      return block(BLOCK.address, QUALIFIER[order.stay], new Uint8Array(12));
    case 'flash':
      return block(BLOCK.signal, 0, FLASH);
    case 'factory':
      return block(BLOCK.factory, QUALIFIER.resetCommunication, NOTHING);
  }
}

export const orderOf = (transaction: number, order: StationOrder): DiscoveryMessage =>
  request('set', transaction, [orderBlock(order)]);

/** Why a station did not do what it was told, by the code of its answer (from memory). */
export const STATION_REFUSALS = [
  'done',
  'option',
  'suboption',
  'not-set',
  'resources',
  'local',
  'in-operation',
] as const;

export type StationRefusal = (typeof STATION_REFUSALS)[number] | 'unknown' | 'unsupported';

/** What came of a set: `done`, or the first refusal; undefined where this is no answer to one. */
export function outcomeOf(message: DiscoveryMessage): StationRefusal | undefined {
  if (message.act !== 'set' || message.type === 'request') return undefined;
  if (message.type === 'unsupported') return 'unsupported';
  const codes = message.blocks
    .filter((one) => one.option === BLOCK.response[0] && one.suboption === BLOCK.response[1])
    .map(({ data }) => (data.length < 3 ? -1 : u8(data, 2)));
  const code = codes.find((one) => one !== 0) ?? (codes.length > 0 ? 0 : -1);
  return STATION_REFUSALS[code] ?? 'unknown';
}

/** The answer to a set: for each block of the request a code, 0 for done. */
export const answerToSet = (
  asked: DiscoveryMessage,
  codes: readonly number[],
): DiscoveryMessage => ({
  ...asked,
  type: 'success',
  delay: 0,
  blocks: asked.blocks.map(({ option, suboption }, at) => {
    const data = new Uint8Array(3);
    putBytes(data, 0, Uint8Array.of(option, suboption, codes[at] ?? 0));
    return block(BLOCK.response, undefined, data);
  }),
});
