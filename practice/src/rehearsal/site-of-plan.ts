import {
  dhcpNameOf,
  findKind,
  interfacesOf,
  isAsking,
  maskLengthOf,
  measureEnd,
  stationNameOf,
  type Device,
  type FactoryState,
  type Interface,
  type Kind,
  type Plan,
  type Subnet,
} from '@ipsonomo/core/plan';
import { formatMac, toMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { Unrehearsed } from '@ipsonomo/core/api';
import type { Assembly, DeviceDefinition } from '../definition';
import type { RouterDefinition } from '../router';
import type { Segment } from '../site';
import { seeded } from '../seeded';

// R-REHEARSE: any plan can be rehearsed: each planned device as its maker delivers it, in its cabinet, on the network the
// plan has for it.

/** What stands on the site of a plan. */
export interface PlannedSite {
  readonly segments: readonly Segment[];
  readonly devices: readonly DeviceDefinition[];
  readonly routers: readonly RouterDefinition[];
  readonly unrehearsed: readonly Unrehearsed[];
}

/** What a device on a serial line counts: invented. */
const REGISTERS = [0, 1, 2, 3];

interface Placed {
  readonly device: Device;
  readonly at: Interface;
  readonly kind: Kind;
  readonly subnet: Subnet;
}

/** @param seed the same one gives the same MACs */
export function siteOfPlan(plan: Plan, seed: number): PlannedSite {
  const subnets = new Map(plan.subnets.map((one) => [one.id, one]));
  const unrehearsed: Unrehearsed[] = [];
  const placed = interfacesOf(plan).flatMap(({ device, at }): readonly Placed[] => {
    const kind = findKind(plan, device.kindId);
    const subnet = subnets.get(at.subnetId);
    if (kind && subnet) {
      const comes = asItComes(kind, device.way);
      if (comes === undefined) unrehearsed.push({ interfaceId: at.id, why: 'no-factory' });
      if (device.way === 'dhcp-port') unrehearsed.push({ interfaceId: at.id, why: 'no-relay' });
      const isSaid = comes === undefined || comes === kind.factory;
      return [{ device, at, kind: isSaid ? kind : { ...kind, factory: comes }, subnet }];
    }
    unrehearsed.push({ interfaceId: at.id, why: kind ? 'no-subnet' : 'no-kind' });
    return [];
  });
  const macs = macsOf(placed, seed);
  const macOf = ({ at }: Placed): MacAddress => macs.get(at.id) ?? toMac(0);
  const ties = tiesOf(placed);
  const segments = plan.subnets.map((subnet, index): Segment => ({
    ...{ id: subnet.id, title: subnet.name, name: `switch-${index + 1}`, port: 'port 1' },
    ...{ mac: ownMac(0x0a, index), vlan: subnet.vlan ?? 1 },
  }));
  return {
    ...{ segments, unrehearsed },
    devices: placed.filter(({ kind }) => !kind.forwards).map((one) => deviceOf(one, ties, macOf)),
    routers: routersOf(plan, placed, macOf),
  };
}

/**
 * How it comes from its maker. Where nobody said so it is as its way usually is: who asks asks, who is named waits for its
 * name, what is typed in waits for that.
 * @returns undefined where that cannot be known: a page has an address, and switches stand somehow
 */
function asItComes({ factory, switches }: Kind, way: Device['way']): FactoryState | undefined {
  if (factory.kind !== 'unknown') return factory;
  if (way === 'bootp') return { kind: 'asks', by: 'bootp' };
  if (isAsking(way)) return { kind: 'asks', by: 'dhcp' };
  if (way === 'switches') return switches ? { kind: 'switches' } : undefined;
  return way === 'web-page' ? undefined : { kind: 'nameless' };
}

/** MACs of the rehearsal's own: locally administered (IEEE 802), each block for one purpose. */
const ownMac = (block: number, number: number): MacAddress =>
  toMac(0x02_7e_00_00_00_00 + block * 2 ** 24 + number);

/** The MAC that the plan knows; else one that no other has. */
function macsOf(placed: readonly Placed[], seed: number): ReadonlyMap<string, MacAddress> {
  const random = seeded(seed);
  const taken = new Set(placed.flatMap(({ at }) => at.mac ?? []));
  const macs = new Map<string, MacAddress>();
  // As on a real site, those of one maker begin alike.
  const makers = [...new Set(placed.map(({ kind }) => kind.maker))];
  for (const { at, kind } of placed) {
    const block = 0x10 + (makers.indexOf(kind.maker) % 0x40);
    let mac = at.mac;
    while (mac === undefined || (mac !== at.mac && taken.has(mac)))
      mac = ownMac(block, Math.floor(random() * 2 ** 24));
    taken.add(mac);
    macs.set(at.id, mac);
  }
  return macs;
}

/** Who runs whom: looked up for every device, and so made once. */
interface Ties {
  /** By the device's id, its first interface. */
  readonly firstOf: ReadonlyMap<string, Placed>;
  /** By the controller's id, the stations under it. */
  readonly stationsOf: ReadonlyMap<string, readonly Placed[]>;
}

function tiesOf(placed: readonly Placed[]): Ties {
  const firstOf = new Map<string, Placed>();
  const stationsOf = new Map<string, Placed[]>();
  for (const one of placed) {
    const { id, controllerId, way } = one.device;
    if (!firstOf.has(id)) firstOf.set(id, one);
    if (way !== 'controller' || controllerId === undefined) continue;
    const stations = stationsOf.get(controllerId);
    if (stations) stations.push(one);
    else stationsOf.set(controllerId, [one]);
  }
  return { firstOf, stationsOf };
}

function deviceOf(
  one: Placed,
  { firstOf, stationsOf }: Ties,
  macOf: (one: Placed) => MacAddress,
): DeviceDefinition {
  const { device, at, kind, subnet } = one;
  const mac = macOf(one);
  const controller =
    device.controllerId === undefined ? undefined : firstOf.get(device.controllerId);
  return {
    id: at.id,
    title: at.label === '' ? device.title : `${device.title}, ${at.label}`,
    kind,
    place: [device.cabinet, device.position].filter((part) => part !== '').join(' / '),
    segment: subnet.id,
    mac,
    label: formatMac(mac).toUpperCase().replaceAll(':', '-'),
    network: subnet.prefix,
    ...(device.way === 'dhcp-name' ? { hostName: dhcpNameOf(device) } : {}),
    ...(device.way === 'controller' && controller ? { runBy: macOf(controller) } : {}),
    project: projectOf(stationsOf.get(device.id) ?? []),
    assemblies: assembliesOf(device),
    line: device.lines.flatMap(({ units }) =>
      units.map(({ unit }) => ({ unit, registers: REGISTERS })),
    ),
  };
}

/** What a controller starts: the stations that the plan has under it, by their names. */
const projectOf = (stations: readonly Placed[]) =>
  stations.map(({ device: station, at, subnet }) => ({
    name: stationNameOf(station),
    at: { address: at.address, length: maskLengthOf(at, subnet) },
  }));

/** The data of its connection, as the plan has them at the device's end. */
function assembliesOf({ connection }: Device): readonly Assembly[] {
  if (connection?.protocol !== 'EtherNet/IP') return [];
  const { inInstance, outInstance, configInstance } = connection.device;
  const { inBytes, outBytes } = measureEnd(connection.device);
  return [
    ...(inInstance === undefined ? [] : [{ instance: inInstance, bytes: inBytes ?? 0 }]),
    ...(outInstance === undefined ? [] : [{ instance: outInstance, bytes: outBytes ?? 0 }]),
    ...(configInstance === undefined ? [] : [{ instance: configInstance, bytes: 0 }]),
  ];
}

/** Routers stand as the plan has them; a gateway that no planned device has is the site's own router. */
function routersOf(
  plan: Plan,
  placed: readonly Placed[],
  macOf: (one: Placed) => MacAddress,
): readonly RouterDefinition[] {
  const planned = new Map<string, RouterDefinition>();
  for (const one of placed.filter(({ kind }) => kind.forwards)) {
    const { id, title } = one.device;
    const at = { address: one.at.address, length: maskLengthOf(one.at, one.subnet) };
    const before = planned.get(id)?.interfaces ?? [];
    const interfaces = [...before, { segment: one.subnet.id, mac: macOf(one), at }];
    planned.set(id, { id, title, interfaces });
  }
  const held = new Set(placed.map(({ at, subnet }) => keyOf(subnet, at.address)));
  const open = plan.subnets.flatMap((subnet, index) => {
    const { gateway } = subnet;
    if (gateway === undefined || held.has(keyOf(subnet, gateway))) return [];
    const at = { address: gateway, length: subnet.prefix.length };
    return [{ realm: subnet.realmId, segment: subnet.id, mac: ownMac(0x01, index), at }];
  });
  const realms = [...new Set(open.map(({ realm }) => realm))];
  const site = realms.map((realm): RouterDefinition => ({
    id: `router-${realm}`,
    title: 'router',
    interfaces: open.filter((one) => one.realm === realm),
  }));
  return [...planned.values(), ...site];
}

const keyOf = ({ id }: Subnet, address: Ipv4): string => `${id} ${address}`;
