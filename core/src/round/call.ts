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
  const calls: RoundCall[] = [];
  for (const device of plan.devices) {
    const kind = findKind(plan, device.kindId);
    const cabinet = cabinets.get(`${device.area}/${device.cabinet}`) ?? 0;
    const isCycled = kind?.needsPowerCycle ?? true;
    const own = callsOf(device, kind, cabinet, isCycled ? behind.get(device.id) : undefined);
    for (const call of own) if (interfaceIds.has(call.id)) calls.push(call);
  }
  return calls;
}

const NOBODY: ReadonlySet<string> = new Set();

interface Made {
  readonly kind: Kind | undefined;
  readonly cabinet: number;
  readonly behind: ReadonlySet<string>;
  readonly calls: readonly RoundCall[];
}

/** The calls made last: those of a device of which nothing has changed stay the same. */
const made = new WeakMap<Device, Made>();

function callsOf(
  device: Device,
  kind: Kind | undefined,
  cabinet: number,
  behind: ReadonlySet<string> = NOBODY,
): readonly RoundCall[] {
  const known = made.get(device);
  if (known?.kind === kind && known?.cabinet === cabinet && known.behind === behind)
    return known.calls;
  const calls = device.interfaces.map((at): RoundCall => ({
    id: at.id,
    deviceId: device.id,
    area: device.area,
    cabinet,
    laptop: laptopFor(device, at, kind),
    factory: factoryOf(device, at, kind),
    behind,
  }));
  made.set(device, { kind, cabinet, behind, calls });
  return calls;
}
