import type { Ipv4 } from '../net';
import {
  findKind,
  isAsking,
  type Device,
  type Interface,
  type Kind,
  type Plan,
  type Way,
} from '../plan';
import { chainsOf } from './chains';

/** One device of the round, as far as the order of walking depends on it. */
export interface RoundCall {
  /** Of the interface. */
  readonly id: string;
  readonly deviceId: string;
  readonly area: string;
  /** The place of its cabinet in the job's order of cabinets. */
  readonly cabinet: number;
  /**
   * What the laptop must be plugged into and set to; undefined where none is needed. A way that opens a
   * page at the factory address needs the laptop itself in that network.
   */
  readonly laptop: string | undefined;
  /** The fixed address and the subnet in which it has that as it comes from its maker. */
  readonly factory: string | undefined;
  /** Devices whose network passes through this one; undefined where it is not power-cycled. */
  readonly behind: ReadonlySet<string>;
}

/** Ways in which nothing is said over the wire until the device is there. */
const AT_THE_DEVICE: readonly Way[] = ['switches', 'keypad', 'card'];

const laptopFor = (device: Device, at: Interface, kind: Kind | undefined): string | undefined => {
  if (AT_THE_DEVICE.includes(device.way)) return undefined;
  const factory = kind?.factory;
  const isPage = device.way === 'web-page' && factory?.kind === 'fixed';
  return isPage ? `${at.subnetId} ${network24(factory.address)}` : at.subnetId;
};

const network24 = (address: Ipv4): number => address >>> 8;

/** A device that asks, or waits for a name, has no factory address to clash with. */
const factoryOf = (device: Device, at: Interface, kind: Kind | undefined): string | undefined =>
  kind?.factory.kind === 'fixed' && !isAsking(device.way)
    ? `${at.subnetId} ${kind.factory.address}`
    : undefined;

/**
 * The calls for these interfaces, in the order of the plan. Cabinets are in the order in which the plan
 * names them first: that is how planners walk through a site.
 */
export function roundCalls(plan: Plan, interfaceIds: ReadonlySet<string>): readonly RoundCall[] {
  const cabinets = new Map<string, number>();
  for (const { area, cabinet } of plan.devices) {
    const key = `${area}/${cabinet}`;
    if (!cabinets.has(key)) cabinets.set(key, cabinets.size);
  }
  const behind = chainsOf(plan);
  return plan.devices.flatMap((device) => {
    const kind = findKind(plan, device.kindId);
    return device.interfaces
      .filter(({ id }) => interfaceIds.has(id))
      .map((at) => ({
        ...{ id: at.id, deviceId: device.id, area: device.area },
        cabinet: cabinets.get(`${device.area}/${device.cabinet}`) ?? 0,
        laptop: laptopFor(device, at, kind),
        factory: factoryOf(device, at, kind),
        behind: (kind?.needsPowerCycle ?? true) ? (behind.get(device.id) ?? NOBODY) : NOBODY,
      }));
  });
}

const NOBODY: ReadonlySet<string> = new Set();
