import type { Ipv4 } from '../net';
import {
  findKind,
  gatewayOf,
  maskLengthOf,
  type Device,
  type Interface,
  type Plan,
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
  readonly why: 'controls' | 'named-in-it';
}

/**
 * R-NEEDED: the connections a plan speaks of: each controller to its devices, and each device to those it names
 * (who may command it, time server, alarm receiver).
 */
export function neededPairs(plan: Plan): readonly NeededPair[] {
  const devices = new Map(plan.devices.map((one) => [one.id, one]));
  return plan.devices.flatMap((device) => {
    const controller = device.controllerId && devices.get(device.controllerId);
    const own = controller && controller !== device ? nearest(controller, device) : undefined;
    const named = [...new Set(device.references.map(({ deviceId }) => deviceId))];
    const namedPairs = named.flatMap((deviceId): readonly NeededPair[] => {
      const other = deviceId === undefined ? undefined : devices.get(deviceId);
      const at = other && nearest(device, other);
      return at ? [pairOf(device, at, 'named-in-it')] : [];
    });
    return controller && own ? [pairOf(controller, own, 'controls'), ...namedPairs] : namedPairs;
  });
}

const pairOf = (from: Device, to: Interface, why: NeededPair['why']): NeededPair => ({
  ...{ from: from.id, why },
  to: { device: to.deviceId, interface: to.id, address: to.address },
});

/** The interface that shares a subnet with the other device, else the first. */
function nearest(from: Device, { interfaces }: Device): Interface | undefined {
  const subnets = new Set(from.interfaces.map(({ subnetId }) => subnetId));
  return interfaces.find(({ subnetId }) => subnets.has(subnetId)) ?? interfaces[0];
}
