import type { Issue } from '../net';
import { interfacesOf, type Plan, type PlannedInterface } from '../plan';

// What is handed over, to whom, and what of it cannot be.

/** Who works from what leaves. */
export const READERS = ['it', 'programmer', 'cabinet', 'record'] as const;
export type Reader = (typeof READERS)[number];

/** Every format that leaves, by who reads it, in the order in which it is offered. */
export const FORMATS_FOR = {
  it: [
    ...(['addresses-csv', 'addresses-xlsx', 'dnsmasq', 'dhcpd', 'kea', 'hosts', 'zones'] as const),
    ...(['firewall', 'nftables', 'targets'] as const),
  ],
  programmer: [
    ...(['connections-csv', 'connections-xlsx', 'connections-pdf', 'names'] as const),
    ...(['corrections', 'written-places'] as const),
  ],
  cabinet: [
    ...(['labels-pdf', 'labels-svg', 'labels-png', 'swap-cards', 'cabinet-sheets'] as const),
  ],
  record: ['proof-pdf', 'proof-json', 'picture-svg', 'plan'],
} as const satisfies Readonly<Record<Reader, readonly string[]>>;

export type FormatId = (typeof FORMATS_FOR)[Reader][number];

export const FORMATS: readonly FormatId[] = READERS.flatMap((reader) => FORMATS_FOR[reader]);

/** Single labels are for single devices: taken with everything they would be two files for each. */
export const AT_ONCE: readonly FormatId[] = FORMATS.filter(
  (format) => format !== 'labels-svg' && format !== 'labels-png',
);

/** Who reads it. */
export const readerOf = (format: FormatId): Reader =>
  READERS.find((reader) => (FORMATS_FOR[reader] as readonly FormatId[]).includes(format)) ??
  'record';

/** Why an interface, or a part of it, does not stand in a file. */
export const LEFT_REASONS = [
  ...(['no-mac', 'no-port', 'no-name', 'same-address', 'same-key', 'outside'] as const),
  ...(['not-a-host-name', 'same-name', 'no-domain', 'no-service', 'no-ping'] as const),
  ...(['no-connection', 'not-in-font', 'no-room'] as const),
] as const;
export type LeftReason = (typeof LEFT_REASONS)[number];

/** What a format cannot say, or nobody knows: listed, never dropped. */
export interface LeftOut {
  readonly interfaceId: string;
  readonly title: string;
  readonly address: string;
  readonly reason: LeftReason;
  /** The name or key that it is about; empty where there is none. */
  readonly value: string;
}

/** Which part of a job is meant; empty lists mean all of it. */
export interface HandOverScope {
  readonly cabinets: readonly string[];
  readonly subnets: readonly string[];
  /** Ids of single interfaces. */
  readonly interfaces?: readonly string[];
}

/** The interfaces of a part of a job; an empty list means all of it. */
export const interfacesInPart = (
  plan: Plan,
  { cabinets, subnets, interfaces = [] }: HandOverScope,
): readonly PlannedInterface[] => {
  const has = (wanted: readonly string[], one: string) =>
    wanted.length === 0 || wanted.includes(one);
  return interfacesOf(plan).filter(
    ({ device, at }) =>
      has(cabinets, device.cabinet) && has(subnets, at.subnetId) && has(interfaces, at.id),
  );
};

export const WHOLE_JOB: HandOverScope = { cabinets: [], subnets: [] };

/** What a person chose of how the files look; kept with the job. */
export interface HandOverOptions {
  /** Columns of the address list in their order; empty for all of them as they come. */
  readonly columns: readonly string[];
  /** The name server that zones name, with its last dot. */
  readonly nameServer: string;
  /** The sheet or roll that labels are printed on. */
  readonly sheet: string;
  /** The sticker to begin at, from 1. */
  readonly firstSticker: number;
}

export const NO_OPTIONS: HandOverOptions = {
  ...{ columns: [], nameServer: 'localhost.', sheet: 'a4-3x7', firstSticker: 1 },
};

/** What is to be written, and of which part of a job. */
export interface PackageWish {
  readonly formats: readonly FormatId[];
  readonly scope: HandOverScope;
  /** Something is wrong in the plan, and a person says that it leaves all the same. */
  readonly despite: boolean;
}

/** What a format left out; the first of them, and how many they are. */
export interface FormatLeft {
  readonly format: FormatId;
  readonly count: number;
  readonly some: readonly LeftOut[];
}

export interface PackageFile {
  readonly format: FormatId;
  readonly name: string;
  readonly bytes: number;
}

/** Files on their way out, as they are written. */
export type PackageView =
  | {
      readonly state: 'writing';
      /** Formats that are written, of how many; those before them in the queue are none of these. */
      readonly done: number;
      readonly total: number;
      readonly doing: FormatId | null;
    }
  | {
      readonly state: 'ready';
      readonly name: string;
      readonly bytes: number;
      readonly files: readonly PackageFile[];
      readonly left: readonly FormatLeft[];
      /** The beginning of a text, where it is one text alone. */
      readonly text: string | null;
    }
  | { readonly state: 'failed'; readonly issue: Issue };

/** A place where an address or a name is written, as a person ticks it off. */
export interface SaidWritten {
  /** The key of the place. */
  readonly place: string;
  readonly whose: string;
  readonly value: string;
  readonly is: 'yes' | 'no';
}

/** The last that was said of a place, by whom and when. */
export interface WrittenTick extends SaidWritten {
  readonly interface: string;
  readonly person: string;
  readonly at: number;
}

/** The last time that a reader was handed something, and of which revision. */
export interface HandedOver {
  readonly reader: Reader;
  readonly at: number;
  readonly person: string;
  readonly revision: number;
  readonly formats: readonly FormatId[];
}

/** Every column that an address list can have, in the order in which they come if nobody orders them. */
export const LIST_OUT = [
  ...(['device', 'host', 'station', 'area', 'cabinet', 'position', 'maker', 'kind'] as const),
  ...(['orderNumber', 'serial', 'subnet', 'network', 'vlan', 'address', 'sort'] as const),
  ...(['mask', 'gateway', 'mac', 'way', 'stage', 'evidence', 'seenAt'] as const),
] as const;
export type ListOut = (typeof LIST_OUT)[number];

/** A sheet of stickers or a roll, in millimetres. */
export interface Stock {
  readonly id: string;
  readonly page: readonly [width: number, height: number];
  /** Of one sticker. */
  readonly size: readonly [width: number, height: number];
  readonly columns: number;
  readonly rows: number;
  /** To the first sticker's upper left corner, from the page's. */
  readonly margin: readonly [left: number, top: number];
  /** From the left, or upper, edge of one to that of the next. */
  readonly pitch: readonly [across: number, down: number];
}

/** What labels are printed on: sizes as office paper and rolls come (common practice, no source). */
export const STOCKS: readonly Stock[] = [
  sheet('a4-3x7', [63.5, 38.1], [3, 7], [7.25, 15.15], [66, 38.1]),
  sheet('a4-3x8', [64, 33.9], [3, 8], [7.2, 12.9], [66, 33.9]),
  sheet('a4-4x12', [45.7, 21.2], [4, 12], [9.8, 21.3], [48.3, 21.2]),
  sheet('a4-5x13', [38.1, 21.2], [5, 13], [4.7, 10.7], [40.6, 21.2]),
  sheet('a4-2x5', [99.1, 57], [2, 5], [4.65, 6], [101.6, 57]),
  roll('roll-62x29', [62, 29]),
  roll('roll-50x25', [50, 25]),
  roll('roll-36x18', [36, 18]),
];

function sheet(
  id: string,
  size: Stock['size'],
  [columns, rows]: readonly [number, number],
  margin: Stock['margin'],
  pitch: Stock['pitch'],
): Stock {
  return { id, page: [210, 297], size, columns, rows, margin, pitch };
}

function roll(id: string, size: Stock['size']): Stock {
  return { id, page: size, size, columns: 1, rows: 1, margin: [0, 0], pitch: size };
}
