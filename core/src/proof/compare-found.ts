import { formatIpv4, formatMac, UNSPECIFIED, type Ipv4, type MacAddress } from '../net';
import type { Kind } from '../plan';
import type { ConnectionState, Station } from '../wire';
import { assemblyDifferences, type AssemblyFound, type PlannedAssembly } from './assemblies';
import type { CheckName } from './checks';
import { CHECK_OF, DIFFERENCES, type DifferenceKind, type FoundDifference } from './differences';
import { moduleDifferences, type ModuleFound, type PlannedModules } from './modules';

/** What is planned of one interface, as far as it can be held against what is found. */
export interface PlannedProof extends PlannedModules {
  /** Undefined while no MAC is bound to it. */
  readonly mac: MacAddress | undefined;
  readonly checks: readonly CheckName[];
  readonly stationName: string;
  readonly identity: Kind['identity'];
  /** Maker and device as it tells them over layer 2. */
  readonly station: Kind['station'];
  readonly assemblies: readonly PlannedAssembly[];
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
  readonly by: 'EtherNet/IP' | 'Modbus/TCP' | 'PROFINET';
  /** Numbers of maker, type and product; undefined where the protocol has none. */
  readonly identity: NonNullable<Kind['identity']> | undefined;
  readonly product: string;
  readonly orderNumber: string;
  readonly revision: string;
  /** Of the hardware; empty where it does not tell. */
  readonly hardware: string;
  /** Empty where it does not tell. */
  readonly serial: string;
  /** Undefined where its protocol does not tell. */
  readonly connection: ConnectionState | undefined;
}

/** What was found at one address. */
export interface Found {
  readonly macs: readonly MacAddress[];
  readonly pingMillis: number | undefined;
  /** What it said over layer 2; undefined where it was not heard there. */
  readonly station: Station | undefined;
  readonly said: Said | undefined;
  /** Mask and gateway as it says it has them; undefined where it does not tell. */
  readonly network: { readonly mask: Ipv4; readonly gateway: Ipv4 } | undefined;
  /** Undefined where its protocol does not tell them, or nobody asked. */
  readonly modules: readonly ModuleFound[] | undefined;
  /** Those that were asked for. */
  readonly assemblies: readonly AssemblyFound[];
  /** Of its web page. */
  readonly page: string | undefined;
  readonly services: readonly ServiceFound[];
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
    ...stationDifferences(planned, found),
    ...(found.said ? saidDifferences(planned, found.said) : noIdentity(planned, found)),
    ...networkDifferences(planned, found),
    ...assemblyDifferences(planned.assemblies, found.assemblies),
    ...moduleDifferences(planned, found.modules),
    ...(asked('services') ? serviceDifferences(planned, found) : []),
  ];
  const differences = DIFFERENCES.flatMap((what) => all.find((one) => one.what === what) ?? []);
  const failed = new Set([
    ...differences.map(({ what }) => CHECK_OF[what]),
    ...untold(planned, found),
  ]);
  return { differences, passed: planned.checks.filter((check) => !failed.has(check)) };
}

/** What could not be asked is no difference, and not passed either. */
const untold = ({ services, station }: PlannedProof, found: Found): readonly CheckName[] => [
  ...(found.said || (station && stationText(found.station)) ? [] : (['identity'] as const)),
  ...(services.every(({ port }) => found.services.some((one) => one.port === port))
    ? []
    : (['services'] as const)),
];

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
function networkDifferences(planned: PlannedProof, found: Found): readonly FoundDifference[] {
  const network = networkSaid(found);
  if (!network) return [];
  return (['mask', 'gateway'] as const).flatMap((what) =>
    planned[what] === network[what]
      ? []
      : [differs(what, orNone(planned[what]), orNone(network[what]))],
  );
}

/** Asked of the device itself, else as it said over layer 2, where a gateway that is its own address is none. */
export function networkSaid({ network, station }: Found): Found['network'] {
  if (network) return network;
  const said = station?.address;
  if (!said || said.state === 'none') return undefined;
  return { mask: said.mask, gateway: said.gateway === said.address ? UNSPECIFIED : said.gateway };
}

const orNone = (address: Ipv4): string => (address === 0 ? 'none' : formatIpv4(address));

function nameDifference(
  { stationName: expected }: PlannedProof,
  { station }: Found,
): readonly FoundDifference[] {
  const found = station?.name ?? '';
  return found === expected ? [] : [differs('name', expected, found)];
}

/** Maker and device over layer 2; empty where it does not tell them. */
export const stationText = (
  station: Partial<Pick<Station, 'vendor' | 'device'>> | undefined,
): string =>
  station?.vendor === undefined || station.device === undefined
    ? ''
    : `${station.vendor} / ${station.device}`;

function stationDifferences(planned: PlannedProof, found: Found): readonly FoundDifference[] {
  const [expected, has] = [stationText(planned.station), stationText(found.station)];
  return expected === '' || has === '' || expected === has ? [] : [differs('kind', expected, has)];
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
    ...(isOtherRevision(revision, said.revision) && !isHardware(revision, said)
      ? [differs('revision', revision, said.revision)]
      : []),
    ...(isOther(serial, said.serial) ? [differs('serial', serial, said.serial)] : []),
  ];
}

/** @example identityText({ vendor: 65201, type: 27, product: 16 }) // '65201 / 27 / 16' */
export const identityText = (identity: Kind['identity']): string =>
  identity ? [identity.vendor, identity.type, identity.product].join(' / ') : '';

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

/** A kind may stand for a revision of the hardware, which only some tell apart. */
const isHardware = (revision: string, { hardware }: Said): boolean =>
  hardware !== '' && !isOtherRevision(revision, hardware);

const serviceDifferences = (
  { services }: PlannedProof,
  { services: found }: Found,
): readonly FoundDifference[] => {
  const closed = services.flatMap(({ port, name }) => {
    const state = found.find((one) => one.port === port)?.state ?? 'open';
    return state === 'open' ? [] : [{ title: `${name} at port ${port}`, is: STATE_WORDS[state] }];
  });
  const titles = closed.map(({ title }) => title).join('; ');
  return titles === '' ? [] : [differs('service', titles, closed.map(({ is }) => is).join('; '))];
};

const STATE_WORDS = { refused: 'refused', silent: 'no answer' } as const;
