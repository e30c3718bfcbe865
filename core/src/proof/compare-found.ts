import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '../net';
import type { Kind } from '../plan';
import type { CheckName } from './checks';

/** What is planned of one interface, as far as it can be held against what is found. */
export interface PlannedProof {
  /** Undefined while no MAC is bound to it. */
  readonly mac: MacAddress | undefined;
  readonly checks: readonly CheckName[];
  readonly stationName: string;
  readonly identity: Kind['identity'];
  /** Of the kind; empty where it stands for any. */
  readonly orderNumber: string;
  readonly revision: string;
  /** Empty where none was noted. */
  readonly serial: string;
  /** As a mask; a gateway of 0.0.0.0 is none. */
  readonly mask: Ipv4;
  readonly gateway: Ipv4;
  /** TCP services such a device has. */
  readonly services: readonly Service[];
}

export interface Service {
  readonly port: number;
  readonly name: string;
}

export interface ServiceFound extends Service {
  readonly state: 'open' | 'refused' | 'silent';
}

/** What a device says of itself. */
export interface Said {
  readonly by: 'EtherNet/IP' | 'Modbus/TCP';
  /** Numbers of maker, type and product; undefined where the protocol has none. */
  readonly identity: NonNullable<Kind['identity']> | undefined;
  readonly product: string;
  readonly orderNumber: string;
  readonly revision: string;
  /** Empty where it does not tell. */
  readonly serial: string;
  readonly isUsed: boolean;
}

/** What was found at one address. */
export interface Found {
  readonly macs: readonly MacAddress[];
  readonly pingMillis: number | undefined;
  /** As it said over layer 2; undefined where it was not heard there. */
  readonly stationName: string | undefined;
  readonly said: Said | undefined;
  /** Mask and gateway as it says it has them; undefined where it does not tell. */
  readonly network: { readonly mask: Ipv4; readonly gateway: Ipv4 } | undefined;
  /** Of its web page. */
  readonly page: string | undefined;
  readonly services: readonly ServiceFound[];
}

/** One value in which planned and found differ; the worst first. */
export const DIFFERENCES = [
  ...(['several', 'mac', 'unbound', 'kind', 'mask', 'gateway', 'article', 'revision'] as const),
  ...(['serial', 'name', 'service', 'identity', 'no-ping'] as const),
] as const;
export type DifferenceKind = (typeof DIFFERENCES)[number];

export interface FoundDifference {
  readonly what: DifferenceKind;
  readonly expected: string;
  readonly found: string;
}

export interface Compared {
  /** In the order of their weight; none where everything is as planned. */
  readonly differences: readonly FoundDifference[];
  readonly passed: readonly CheckName[];
}

/**
 * Planned and found side by side. Another device at the address, or more than one, is all that is told then: what
 * such a one says of itself is nothing about the planned one.
 */
export function compareFound(planned: PlannedProof, found: Found): Compared {
  const who = whoIsThere(planned, found);
  if (who) return { differences: [who], passed: [] };
  const asked = (check: CheckName) => planned.checks.includes(check);
  const all = [
    ...(asked('ping') && found.pingMillis === undefined
      ? [differs('no-ping', 'an answer', 'none')]
      : []),
    ...(asked('name') ? nameDifference(planned, found) : []),
    ...(found.said ? saidDifferences(planned, found.said) : noIdentity(planned, found)),
    ...networkDifferences(planned, found),
    ...(asked('services') ? serviceDifferences(planned, found) : []),
  ];
  const differences = DIFFERENCES.flatMap((what) => all.filter((one) => one.what === what));
  const failed = new Set([
    ...differences.map(({ what }) => CHECK_OF[what]),
    ...untold(planned, found),
  ]);
  return { differences, passed: planned.checks.filter((check) => !failed.has(check)) };
}

/** What could not be asked is no difference, and not passed either. */
const untold = ({ services }: PlannedProof, found: Found): readonly CheckName[] => [
  ...(found.said ? [] : (['identity'] as const)),
  ...(services.every(({ port }) => found.services.some((one) => one.port === port))
    ? []
    : (['services'] as const)),
];

/** The check that a difference belongs to. */
export const CHECK_OF: Readonly<Record<DifferenceKind, CheckName>> = {
  ...({ several: 'arp', mac: 'arp', unbound: 'arp', 'no-ping': 'ping', name: 'name' } as const),
  ...({ mask: 'arp', gateway: 'arp' } as const),
  ...({ kind: 'identity', article: 'identity', revision: 'identity' } as const),
  ...({ serial: 'identity', identity: 'identity', service: 'services' } as const),
};

const differs = (what: DifferenceKind, expected: string, found: string): FoundDifference => ({
  ...{ what, expected, found },
});

function whoIsThere({ mac }: PlannedProof, { macs }: Found): FoundDifference | undefined {
  const found = macs.map(formatMac).join(', ');
  const expected = mac === undefined ? '' : formatMac(mac);
  if (macs.length > 1) return differs('several', expected, found);
  if (mac === undefined) return differs('unbound', '', found);
  return macs.includes(mac) ? undefined : differs('mac', expected, found);
}

/** They show only from another subnet, so the device is asked for them. */
function networkDifferences(planned: PlannedProof, { network }: Found): readonly FoundDifference[] {
  if (!network) return [];
  return (['mask', 'gateway'] as const).flatMap((what) =>
    planned[what] === network[what]
      ? []
      : [differs(what, orNone(planned[what]), orNone(network[what]))],
  );
}

const orNone = (address: Ipv4): string => (address === 0 ? 'none' : formatIpv4(address));

function nameDifference(
  { stationName: expected }: PlannedProof,
  { stationName: found }: Found,
): readonly FoundDifference[] {
  return found === expected ? [] : [differs('name', expected, found ?? '')];
}

/** It should say who it is, its service for that is open, and it does not. */
function noIdentity({ checks }: PlannedProof, { services }: Found): readonly FoundDifference[] {
  const isOpen = services.some(({ port, state }) => port === 44_818 && state === 'open');
  return checks.includes('identity') && isOpen
    ? [differs('identity', 'who it is', 'nothing that can be read')]
    : [];
}

function saidDifferences(planned: PlannedProof, said: Said): readonly FoundDifference[] {
  const { identity, orderNumber, revision, serial } = planned;
  const isOther = (expected: string, found: string) =>
    expected !== '' && found !== '' && expected.toLowerCase() !== found.toLowerCase();
  return [
    ...(identity && said.identity && identityText(identity) !== identityText(said.identity)
      ? [differs('kind', identityText(identity), identityText(said.identity))]
      : []),
    ...(isOther(orderNumber, said.orderNumber)
      ? [differs('article', orderNumber, said.orderNumber)]
      : []),
    ...(isOtherRevision(revision, said.revision)
      ? [differs('revision', revision, said.revision)]
      : []),
    ...(isOther(serial, said.serial) ? [differs('serial', serial, said.serial)] : []),
  ];
}

/** @example identityText({ vendor: 65201, type: 27, product: 16 }) // '65201 / 27 / 16' */
export const identityText = ({ vendor, type, product }: NonNullable<Kind['identity']>): string =>
  [vendor, type, product].join(' / ');

const numbersOf = (revision: string): readonly number[] =>
  (revision.match(/\d+/g) ?? []).map(Number);

/**
 * R-REVISION: of another major revision, or older than planned; a newer minor one counts as the same. What has no
 * number in it stands for any.
 */
export function isOtherRevision(planned: string, found: string): boolean {
  const [major, minor = 0] = numbersOf(planned);
  const [foundMajor, foundMinor = 0] = numbersOf(found);
  if (major === undefined || foundMajor === undefined) return false;
  return major !== foundMajor || foundMinor < minor;
}

const serviceDifferences = (
  { services }: PlannedProof,
  { services: found }: Found,
): readonly FoundDifference[] =>
  services.flatMap(({ port, name }) => {
    const state = found.find((one) => one.port === port)?.state ?? 'open';
    return state === 'open'
      ? []
      : [differs('service', `${name} at port ${port}`, STATE_WORDS[state])];
  });

const STATE_WORDS = { refused: 'refused', silent: 'no answer' } as const;
