import { formatIpv4, formatMac, toIpv4, toMac } from '@ipsonomo/core/net';
import { visibleText } from '@ipsonomo/core/names';
import {
  BLOCK,
  toHex,
  toLatin1,
  type DiscoveryBlock,
  type DiscoveryMessage,
} from '@ipsonomo/core/wire';

// Blocks of discovery over layer 2 by their meaning (IEC 61158-6-10, from memory, confirmed with tshark's dissector).

type Value = string | number | readonly string[] | Readonly<Record<string, string | number>>;

const text = (data: Uint8Array): Value => visibleText(toLatin1(data));
const u16 = (data: Uint8Array, at: number): number => ((data[at] ?? 0) << 8) | (data[at + 1] ?? 0);
const u32 = (data: Uint8Array, at: number): number => u16(data, at) * 65_536 + u16(data, at + 2);
const hex16 = (value: number): string => `0x${value.toString(16).padStart(4, '0')}`;
const addressAt = (data: Uint8Array, at: number): string => formatIpv4(toIpv4(u32(data, at)));

/** Bits of a station's role. */
const ROLES = ['device', 'controller', 'multidevice', 'supervisor'];
/** What an answer to a set says of each block. */
const ERRORS = [
  'ok',
  'option unknown',
  'suboption unknown',
  'not set',
  'resource error',
  'not now',
  'in operation',
];

interface Meaning {
  readonly name: string;
  /** Shortest value that has this meaning. */
  readonly least: number;
  readonly read: (data: Uint8Array) => Value;
}

const MEANINGS: Readonly<Record<keyof typeof BLOCK, Meaning>> = {
  mac: {
    name: 'MAC',
    least: 6,
    read: (data) => formatMac(toMac(u16(data, 0) * 2 ** 32 + u32(data, 2))),
  },
  address: {
    ...{ name: 'address', least: 12 },
    read: (data) => ({
      address: addressAt(data, 0),
      mask: addressAt(data, 4),
      gateway: addressAt(data, 8),
    }),
  },
  stationType: { name: 'station type', least: 0, read: text },
  stationName: { name: 'station name', least: 0, read: text },
  deviceId: {
    ...{ name: 'identity', least: 4 },
    read: (data) => ({ vendor: hex16(u16(data, 0)), device: hex16(u16(data, 2)) }),
  },
  deviceRole: {
    ...{ name: 'role', least: 1 },
    read: ([bits = 0]) => ROLES.filter((_role, at) => (bits & (1 << at)) !== 0),
  },
  signal: { name: 'flash', least: 2, read: (data) => hex16(u16(data, 0)) },
  response: {
    ...{ name: 'answer to a block', least: 3 },
    read: (data) => ({
      about: nameOf(data[0] ?? 0, data[1] ?? 0),
      error: ERRORS[data[2] ?? 0] ?? data[2] ?? 0,
    }),
  },
  factory: { name: 'reset', least: 0, read: toHex },
  everything: { name: 'everything', least: 0, read: toHex },
};

const meaningOf = (option: number, suboption: number): Meaning | undefined => {
  const [name] =
    Object.entries(BLOCK).find(([, [one, two]]) => one === option && two === suboption) ?? [];
  return MEANINGS[name as keyof typeof BLOCK];
};

const nameOf = (option: number, suboption: number): string =>
  meaningOf(option, suboption)?.name ?? `${option}/${suboption}`;

/** One block by its meaning; hex where it has none here, or is too short for it. */
function blockView({ option, suboption, word, data }: DiscoveryBlock) {
  const meaning = meaningOf(option, suboption);
  const isRead = meaning !== undefined && data.length >= meaning.least && data.length > 0;
  return {
    about: `${option}/${suboption}`,
    ...(meaning ? { name: meaning.name } : {}),
    ...(word === undefined ? {} : { word }),
    value: isRead ? meaning.read(data) : toHex(data),
  };
}

export const discoveryView = ({ transaction, delay, blocks }: DiscoveryMessage) => ({
  transaction: transaction.toString(16).padStart(8, '0'),
  delay,
  blocks: blocks.map(blockView),
});
