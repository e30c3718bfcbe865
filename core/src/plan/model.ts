import type { AddressRange, Ipv4, MacAddress, Prefix } from '../net';

/** How a device gets its address. */
export const WAYS = [
  'bootp',
  'dhcp-mac',
  'dhcp-name',
  'dhcp-port',
  'switches',
  'web-page',
  'layer2-name',
  'controller',
  'keypad',
  'makers-tool',
  'card',
] as const;

export type Way = (typeof WAYS)[number];

/** Does a device of this way ask for its address, so that somebody can answer? */
export const isAsking = (way: Way): boolean =>
  way === 'bootp' || way === 'dhcp-mac' || way === 'dhcp-name' || way === 'dhcp-port';

/** What an address or a device is for; a band keeps a range of a subnet for one of them. */
export const ROLES = [
  'infrastructure',
  'controllers',
  'panels',
  'gateways',
  'drives',
  'io',
  'sensors',
  'pool',
  'held',
  'laptops',
] as const;

export type Role = (typeof ROLES)[number];

export interface Band extends AddressRange {
  readonly role: Role;
}

export interface Subnet {
  readonly id: string;
  readonly name: string;
  readonly prefix: Prefix;
  readonly gateway: Ipv4 | undefined;
  readonly vlan: number | undefined;
  readonly purpose: string;
  /** In the order of their addresses, without overlap. */
  readonly bands: readonly Band[];
}

/** One network connection of a device. */
export interface Interface {
  readonly id: string;
  readonly subnetId: string;
  readonly address: Ipv4;
  /** Known once a heard MAC was bound to it. */
  readonly mac: MacAddress | undefined;
}

export interface Device {
  readonly id: string;
  /** What people call it: "Drum filter drive 2". */
  readonly title: string;
  /** Its host name: "fh2-drive-2". */
  readonly name: string;
  readonly kindId: string;
  readonly way: Way;
  readonly area: string;
  readonly cabinet: string;
  readonly position: string;
  readonly interfaces: readonly Interface[];
}

/** What is wanted: one site or machine. */
export interface Plan {
  readonly subnets: readonly Subnet[];
  readonly devices: readonly Device[];
}

export interface PlannedInterface {
  readonly device: Device;
  readonly at: Interface;
}

export const interfacesOf = (plan: Plan): readonly PlannedInterface[] =>
  plan.devices.flatMap((device) => device.interfaces.map((at) => ({ device, at })));

export const findSubnet = (plan: Plan, id: string): Subnet | undefined =>
  plan.subnets.find((subnet) => subnet.id === id);

/** The addresses of a subnet that the plan gives to devices. */
export const givenAddresses = (plan: Plan, subnetId: string): ReadonlySet<Ipv4> =>
  new Set(
    interfacesOf(plan)
      .filter(({ at }) => at.subnetId === subnetId)
      .map(({ at }) => at.address),
  );
