import { containsAddress, formatIpv4, type Ipv4 } from '../net';
import {
  findDevice,
  findKind,
  findSubnet,
  isAsking,
  isFoundByStationName,
  oncePer,
  stationNameOf,
  type Device,
  type Plan,
  type PlannedInterface,
  type Subnet,
} from '../plan';
import { neededPairs } from '../routes';

/** Where an address or a name can stand. */
export const PLACE_KINDS = [
  ...(['project', 'panel', 'named', 'gateway', 'route', 'translation'] as const),
  ...(['dhcp-server', 'reservation', 'firewall', 'dns', 'hosts', 'monitoring', 'label'] as const),
] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

export interface WrittenPlace {
  /** The same place again after a change of the plan. */
  readonly key: string;
  readonly kind: PlaceKind;
  /** Whose it is: a device's title, a subnet's name; empty where the kind says it. */
  readonly holder: string;
  /** What has to stand there. */
  readonly value: string;
}

/**
 * R-WRITTEN: every place that names an interface by its address, or its device by its name: the controller's project, the
 * panels of it, devices that name it (who may command, time server, alarm receiver), whose gateway it is, static routes
 * and translations, DHCP servers, and the lists that leave: reservations, firewall, names, monitoring, the label.
 */
export function writtenPlaces(plan: Plan, one: PlannedInterface): readonly WrittenPlace[] {
  const { device, at } = one;
  const subnet = findSubnet(plan, at.subnetId);
  const address = formatIpv4(at.address);
  const place = (kind: PlaceKind, holder: string, value = address, id = ''): WrittenPlace => ({
    ...{ key: id === '' ? kind : `${kind}:${id}`, kind, holder, value },
  });
  const controller = findDevice(plan, device.controllerId);
  const isFirst = device.interfaces[0] === at;
  return [
    ...(controller && isFirst
      ? [place('project', controller.title, projectValue(device, address), controller.id)]
      : []),
    ...panelsOf(plan, device, controller).map((panel) =>
      place('panel', panel.title, address, panel.id),
    ),
    ...holdersOf(plan.devices).flatMap((other) => holdersIn(other, one, isFirst, place)),
    ...(subnet ? subnetPlaces(plan, subnet, at.address, place) : []),
    ...(isAsking(device.way) ? [place('reservation', subnet?.name ?? '')] : []),
    ...(isNeeded(plan, one) ? [place('firewall', '')] : []),
    ...(subnet && subnet.dnsSuffix !== ''
      ? [place('dns', subnet.dnsSuffix, `${device.name} ${address}`)]
      : []),
    place('hosts', '', `${address} ${device.name}`),
    ...((findKind(plan, device.kindId)?.answersPing ?? true) ? [place('monitoring', '')] : []),
    place('label', '', `${device.name} ${address}`),
  ];
}

type Place = (kind: PlaceKind, holder: string, value?: string, id?: string) => WrittenPlace;

/** By its station name where its controller looks for that, else by its address. */
const projectValue = (device: Device, address: string): string =>
  isFoundByStationName(device) ? `${stationNameOf(device)} ${address}` : address;

/** Panels name the controller that they show, and what they open connections to themselves. */
const panelsOf = (plan: Plan, device: Device, controller: Device | undefined): readonly Device[] =>
  panelsIn(plan).filter(
    (one) => one !== device && one.controllerId === device.id && one !== controller,
  );

/** What another device has of it: named in it, a static route through it, a translation of it. */
function holdersIn(
  other: Device,
  { device, at }: PlannedInterface,
  isFirst: boolean,
  place: Place,
): readonly WrittenPlace[] {
  if (other === device) return [];
  const named = other.references.filter(
    (one) =>
      one.address === at.address ||
      (one.address === undefined && one.deviceId === device.id && isFirst),
  );
  const routes = other.routes.filter(({ via }) => via === at.address);
  const translations = other.translations.filter((one) =>
    one.kind === 'many-to-one'
      ? one.outside === at.address || containsAddress(one.inside, at.address)
      : containsAddress(one.inside, at.address) || containsAddress(one.outside, at.address),
  );
  return [
    ...named.map(({ what }) =>
      place('named', `${other.title}: ${what}`, undefined, `${other.id}:${what}`),
    ),
    ...(routes.length > 0 ? [place('route', other.title, undefined, other.id)] : []),
    ...(translations.length > 0 ? [place('translation', other.title, undefined, other.id)] : []),
  ];
}

/** Everybody of a subnet has its gateway; its relay has the DHCP server. */
function subnetPlaces(
  plan: Plan,
  own: Subnet,
  address: Ipv4,
  place: Place,
): readonly WrittenPlace[] {
  const gateway = own.gateway === address ? [place('gateway', own.name, undefined, own.id)] : [];
  const served = plan.subnets.filter(({ dhcpServers }) => dhcpServers.includes(address));
  return [
    ...gateway,
    ...served.map((subnet) => place('dhcp-server', subnet.name, undefined, subnet.id)),
  ];
}

const isNeeded = (plan: Plan, { device, at }: PlannedInterface): boolean =>
  neededIn(plan).has(device.id) || neededIn(plan).has(at.id);

/** Devices and interfaces that a needed connection comes from or leads to. */
const neededIn = oncePer(
  (plan: Plan): ReadonlySet<string> =>
    new Set(neededPairs(plan).flatMap(({ from, to }) => [from, to.interface])),
);

/** The few that name others. */
const holdersOf = oncePer((devices: readonly Device[]) =>
  devices.filter(
    ({ references, routes, translations }) =>
      references.length + routes.length + translations.length > 0,
  ),
);

const panelsIn = oncePer((plan: Plan) =>
  plan.devices.filter((one) => findKind(plan, one.kindId)?.role === 'panels'),
);
