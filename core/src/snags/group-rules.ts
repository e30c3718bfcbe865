import { formatIpv4, formatMac } from '../net';
import {
  dhcpNameOf,
  stationNameOf,
  variableOf,
  type Device,
  type Kind,
  type PlannedInterface,
  type Subnet,
} from '../plan';
import { snag, type Snag, type SnagFacts, type SnagRule } from './snag';

// What may be there once and is there twice. Each device says under which keys it stands; a key with
// more than one member is looked at.

/** One member of a group: a device, and the interface where the key is one's. */
export type Member = PlannedInterface | { readonly device: Device; readonly at?: undefined };

type Judge = (members: readonly Member[]) => readonly Snag[];

/** What may be there once: `address` in a realm, `station` in a subnet, `title` anywhere. */
export type GroupKind = 'address' | 'mac' | 'host' | 'dhcp' | 'station' | 'variable' | 'title';

/** A value under which a device stands, once in its scope. No key is one text: there are too many. */
export interface GroupKey {
  readonly kind: GroupKind;
  /** The realm, subnet or controller in which it has to be the only one. */
  readonly scope: string;
  readonly value: string | number;
}

export type VisitKey = (
  kind: GroupKind,
  scope: string,
  value: string | number,
  member: Member,
) => void;

const titles = (members: readonly Member[]): string =>
  members.map(({ device }) => device.title).join(' and ');

/** A snag at the first, with the others beside it. */
function twice<Rule extends SnagRule>(
  rule: Rule,
  field: string,
  facts: (member: Member) => Omit<SnagFacts[Rule], 'devices' | 'count'>,
): Judge {
  return (members) => {
    const [first, ...others] = members;
    if (!first || others.length === 0) return [];
    const idOf = (one: Member) => one.at?.id ?? one.device.id;
    return [
      snag(
        rule,
        {
          type: first.at ? 'interface' : 'device',
          id: idOf(first),
          field,
          also: others.map(idOf),
        },
        {
          ...facts(first),
          devices: titles(members),
          count: members.length,
        } as unknown as SnagFacts[Rule],
      ),
    ];
  };
}

const JUDGES: Readonly<Record<GroupKind, Judge>> = {
  address: (members) => {
    // Two of one device are told of by its own rule.
    const devices = new Set(members.map(({ device }) => device.id));
    return devices.size < 2 ? [] : addressTwice(members);
  },
  mac: twice('S-MAC-TWICE', 'mac', ({ at }) => ({
    mac: at?.mac === undefined ? '' : formatMac(at.mac),
  })),
  host: twice('S-HOST-NAME-TWICE', 'name', ({ device }) => ({ name: device.name })),
  station: twice('S-STATION-NAME-TWICE', 'stationName', ({ device }) => ({
    name: stationNameOf(device),
  })),
  dhcp: twice('S-DHCP-NAME-TWICE', 'dhcpName', ({ device }) => ({ name: dhcpNameOf(device) })),
  variable: twice('S-VARIABLE-TWICE', 'variable', ({ device }) => ({ name: variableOf(device) })),
  title: twice('S-TITLE-TWICE', 'title', ({ device }) => ({ title: device.title })),
};

const addressTwice = twice('S-ADDRESS-TWICE', 'address', ({ at }) => ({
  address: at ? formatIpv4(at.address) : '',
}));

/** What a controller's devices ask of it together. @param leaning in no order */
export function controllerSnags(
  controller: Device,
  kind: Kind | undefined,
  leaning: readonly Device[],
): readonly Snag[] {
  const most = Math.min(kind?.mostConnections ?? Infinity, kind?.mostDevices ?? Infinity);
  const mostPackets = kind?.mostPacketsPerSecond ?? Infinity;
  if (!kind || (most === Infinity && mostPackets === Infinity)) return [];
  const devices = leaning.filter((one) => one.controllerId === controller.id && one !== controller);
  const place = { type: 'device', id: controller.id, field: 'controllerId' } as const;
  const facts = { device: controller.title, kind: kind.name };
  const snags: Snag[] = [];
  if (devices.length > most)
    snags.push(snag('S-CONNECTIONS-LIMIT', place, { ...facts, have: devices.length, most }));
  const packets = packetsPerSecond(devices);
  if (packets > mostPackets)
    snags.push(snag('S-PACKETS-LIMIT', place, { ...facts, have: packets, most: mostPackets }));
  return snags;
}

/** One packet each way an interval, for every connection whose interval is planned. */
function packetsPerSecond(devices: readonly Device[]): number {
  let packets = 0;
  for (const { connection } of devices) {
    const interval = connection?.controller.intervalMillis ?? connection?.device.intervalMillis;
    if (interval !== undefined) packets += 2000 / interval;
  }
  return Math.ceil(packets);
}

/**
 * Visits every key under which a device stands. They are made anew each time: kept for tens of
 * thousands of devices they would be most of what the book holds.
 * @param subnets that of each interface
 */
export function eachGroupKey(
  device: Device,
  subnets: readonly (Subnet | undefined)[],
  visit: VisitKey,
): void {
  const whole: Member = { device };
  let before: string | undefined;
  device.interfaces.forEach((at, index) => {
    const realm = subnets[index]?.realmId;
    if (realm === undefined) return;
    const member = { device, at };
    visit('address', realm, at.address, member);
    if (at.loan) {
      const lent = { ...at, address: at.loan.address };
      visit('address', realm, lent.address, { device, at: lent });
    }
    if (at.mac !== undefined) visit('mac', realm, at.mac, member);
    if (before === realm) return;
    before = realm;
    visit('host', realm, device.name.toLowerCase(), whole);
    if (device.way === 'dhcp-name') visit('dhcp', realm, dhcpNameOf(device), whole);
  });
  if (goesByStationName(device))
    for (const subnetId of new Set(device.interfaces.map((one) => one.subnetId)))
      visit('station', subnetId, stationNameOf(device), whole);
  visit('title', '', device.title, whole);
  const { controllerId } = device;
  if (controllerId !== undefined && controllerId !== device.id)
    // IEC 61131-3 §6.1.2: capitals make no difference in an identifier.
    visit('variable', controllerId, variableOf(device).toLowerCase(), whole);
}

const goesByStationName = ({ way, protocol, stationName }: Device): boolean =>
  way === 'layer2-name' ||
  way === 'controller' ||
  protocol === 'PROFINET' ||
  stationName !== undefined;

/** Looks at one key. @param members in the order of the plan */
export function judgeGroup(kind: GroupKind, members: readonly Member[]): readonly Snag[] {
  // A device with interfaces in two subnets of a realm stands there twice by its own name.
  const isSelf = members.every((one) => one.device === members[0]?.device);
  return isSelf && kind !== 'address' && kind !== 'mac' ? [] : JUDGES[kind](members);
}
