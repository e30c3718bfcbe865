import type { Ipv4 } from '../net';
import {
  findKind,
  gatewayOf,
  interfacesOf,
  maskLengthOf,
  type Device,
  type Interface,
  type Plan,
  type Role,
  type Subnet,
} from '../plan';
import type { RouteHost, RouteNet, RoutePort } from './net';

/** The router of a realm that the plan names by its address alone. */
export const ASSUMED = 'assumed:';

/**
 * A plan as hosts and links: a subnet is a link, a device with its own masks, gateways, routes and translations a
 * host. A gateway that no device of the plan has is taken for a port of one router a realm, which is assumed to
 * know all its subnets.
 */
export function routeNetOf(plan: Plan): RouteNet {
  const subnets = new Map(plan.subnets.map((one) => [one.id, one]));
  const hosts = plan.devices.flatMap((device) => hostOf(plan, device, subnets) ?? []);
  return { hosts: [...hosts, ...assumedRouters(plan, hosts)] };
}

function hostOf(
  plan: Plan,
  device: Device,
  subnets: ReadonlyMap<string, Subnet>,
): RouteHost | undefined {
  const kind = findKind(plan, device.kindId);
  const ports = device.interfaces.flatMap((at) => {
    const subnet = subnets.get(at.subnetId);
    return subnet ? [portOf(at, subnet)] : [];
  });
  if (ports.length === 0) return undefined;
  const forwards = kind?.forwards ?? false;
  return {
    ...{ id: device.id, title: device.title, ports, routes: device.routes, forwards },
    isRack: !forwards && kind?.role === 'controllers' && ports.length > 1,
    answersForOthers: false,
    translations: device.translations,
  };
}

function portOf(at: Interface, subnet: Subnet): RoutePort {
  const length = maskLengthOf(at, subnet);
  const gateway = gatewayOf(at, subnet);
  return { id: at.id, link: subnet.id, address: at.address, length, gateway };
}

function assumedRouters(plan: Plan, hosts: readonly RouteHost[]): readonly RouteHost[] {
  const held = new Set(hosts.flatMap(({ ports }) => ports.map(key)));
  const byRealm = new Map<string, RoutePort[]>();
  for (const { id, realmId, gateway, prefix } of plan.subnets) {
    if (gateway === undefined) continue;
    const port: RoutePort = {
      ...{ id: `${ASSUMED}${id}`, link: id, address: gateway, length: prefix.length },
      gateway: undefined,
    };
    if (!held.has(key(port))) byRealm.set(realmId, [...(byRealm.get(realmId) ?? []), port]);
  }
  return [...byRealm].map(([realmId, ports]) => ({
    ...{ id: `${ASSUMED}${realmId}`, title: 'Router of the site', ports, routes: [] },
    ...{ forwards: true, isRack: false, answersForOthers: false, translations: [] },
  }));
}

const key = ({ link, address }: RoutePort): string => `${link} ${address}`;

/** A connection that the job needs: from a device to an interface of another. */
export interface NeededPair {
  readonly from: string;
  readonly to: { readonly device: string; readonly interface: string; readonly address: Ipv4 };
  /** Why it is needed. */
  readonly why: 'controls' | 'named-in-it' | 'services';
}

/** What a service laptop works with; the rest it reaches through these (common practice, no source). */
const SERVICED: readonly Role[] = ['controllers', 'panels', 'gateways', 'infrastructure'];

/**
 * R-NEEDED: the connections a plan speaks of: each controller to its devices, but from those that only open connections
 * (panels) to their controller; each device to those it names (who may command it, time server, alarm receiver), by
 * themselves or by their address; each service laptop to what it works with.
 */
export function neededPairs(plan: Plan): readonly NeededPair[] {
  const devices = new Map(plan.devices.map((one) => [one.id, one]));
  const byAddress = new Map(interfacesOf(plan).map((one) => [one.at.address, one]));
  const roleOf = ({ kindId }: Device) => findKind(plan, kindId)?.role;
  return plan.devices.flatMap((device): readonly NeededPair[] => {
    const controller = device.controllerId ? devices.get(device.controllerId) : undefined;
    const named = device.references.flatMap(({ deviceId, address }) => {
      const other = deviceId === undefined ? undefined : devices.get(deviceId);
      const there = address === undefined ? undefined : byAddress.get(address);
      return other ?? there?.device ?? [];
    });
    const serviced =
      roleOf(device) === 'laptops'
        ? plan.devices.filter((one) => SERVICED.some((role) => role === roleOf(one)))
        : [];
    return [
      ...(controller && controller !== device ? controls(plan, controller, device) : []),
      ...[...new Set(named)].flatMap((other) => pairOf(device, other, 'named-in-it')),
      ...serviced.flatMap((other) => pairOf(device, other, 'services')),
    ];
  });
}

/** Who opens the connection: the controller, but for a kind that opens some and serves none. */
function controls(plan: Plan, controller: Device, device: Device): readonly NeededPair[] {
  const sides = findKind(plan, device.kindId)?.roles.map(({ side }) => side) ?? [];
  const opens = sides.length > 0 && sides.every((side) => side === 'opens');
  return opens ? pairOf(device, controller, 'controls') : pairOf(controller, device, 'controls');
}

function pairOf(from: Device, to: Device, why: NeededPair['why']): readonly NeededPair[] {
  const at = nearest(from, to);
  return at && from.id !== to.id
    ? [{ from: from.id, why, to: { device: to.id, interface: at.id, address: at.address } }]
    : [];
}

/** The interface that shares a subnet with the other device, else the first. */
function nearest(from: Device, { interfaces }: Device): Interface | undefined {
  const subnets = new Set(from.interfaces.map(({ subnetId }) => subnetId));
  return interfaces.find(({ subnetId }) => subnets.has(subnetId)) ?? interfaces[0];
}
