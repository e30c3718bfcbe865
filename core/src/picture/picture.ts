import type { Ipv4 } from '../net';
import { interfacesOf, type Plan } from '../plan';
import { routeNetOf, type Hop, type RouteHost, type ThereAndBack, type Walk } from '../routes';

/** A subnet with what is in it. */
export interface Lane {
  readonly subnetId: string;
  readonly name: string;
  readonly vlan: number | undefined;
  /** Of its prefix. */
  readonly length: number;
  readonly devices: readonly LaneDevice[];
}

export interface LaneDevice {
  readonly deviceId: string;
  readonly interfaceId: string;
  readonly title: string;
  readonly address: Ipv4;
}

/** What has a port in more than one subnet. */
export interface Joiner {
  /** Of its device, or of a router that the plan names by its address alone. */
  readonly id: string;
  readonly title: string;
  /** `two-sided`: it is in several subnets and passes nothing from one to another. */
  readonly kind: 'router' | 'translator' | 'rack' | 'two-sided';
  readonly lanes: readonly string[];
}

/** The site as it is connected: subnets as lanes, and what joins them. */
export interface Picture {
  readonly lanes: readonly Lane[];
  readonly joiners: readonly Joiner[];
}

const kindOf = ({ translations, forwards, isRack }: RouteHost): Joiner['kind'] => {
  if (translations.length > 0) return 'translator';
  if (forwards) return 'router';
  return isRack ? 'rack' : 'two-sided';
};

export function pictureOf(plan: Plan): Picture {
  const joiners = routeNetOf(plan).hosts.flatMap((host): readonly Joiner[] => {
    const lanes = [...new Set(host.ports.map(({ link }) => link))];
    // A router with one port still is where the way out is; a device with one is in its lane.
    if (lanes.length < 2) return [];
    return [{ id: host.id, title: host.title, kind: kindOf(host), lanes }];
  });
  const joining = new Set(joiners.map(({ id }) => id));
  const devices = new Map(plan.subnets.map(({ id }): [string, LaneDevice[]] => [id, []]));
  for (const { device, at } of interfacesOf(plan))
    if (!joining.has(device.id))
      devices.get(at.subnetId)?.push({
        ...{ deviceId: device.id, interfaceId: at.id, title: device.title, address: at.address },
      });
  return {
    joiners,
    lanes: plan.subnets.map(({ id, name, vlan, prefix }) => ({
      ...{ subnetId: id, name, vlan, length: prefix.length },
      devices: devices.get(id) ?? [],
    })),
  };
}

/** A way through the picture: the ids of devices and joiners, each once in a row. */
export interface DrawnRoute {
  readonly there: readonly string[];
  readonly back: readonly string[];
  /** Where it ends too early. */
  readonly end: string | undefined;
}

/** A route there and back as it is drawn; a loop is drawn once round. */
export function drawnRoute({ there, back, verdict }: ThereAndBack): DrawnRoute {
  return {
    there: passed(there),
    back: back ? passed(back) : [],
    end: verdict.works ? undefined : verdict.at.host.id,
  };
}

const passed = ({ hops }: Walk): readonly string[] => {
  const ids: string[] = [];
  for (const { host } of hops as readonly Hop[]) {
    const { id } = host.host;
    const isRound = ids.includes(id);
    ids.push(id);
    if (isRound) break;
  }
  return ids;
};
