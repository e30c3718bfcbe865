import type { RoundCall } from './call';

/**
 * What an order costs, compared in the order of these fields (R-ROUND):
 *
 * - `clashes`: pairs of devices with one factory address that have power at once. In a cabinet one is
 *   switched on after the other; what was left undone in a cabinet one has been at has power.
 * - `laptop`: changes of socket or laptop setting.
 * - `areas`, `cabinets`: changes from one call to the next.
 * - `walk`: how far apart those cabinets stand in the job's order.
 * - `power`: devices already done whose network is cut by the power cycle of one they hang behind.
 */
export interface RoundCost {
  readonly clashes: number;
  readonly laptop: number;
  readonly areas: number;
  readonly cabinets: number;
  readonly walk: number;
  readonly power: number;
}

const FIELDS = ['clashes', 'laptop', 'areas', 'cabinets', 'walk', 'power'] as const;

export const NO_COST: RoundCost = {
  ...{ clashes: 0, laptop: 0, areas: 0, cabinets: 0, walk: 0, power: 0 },
};

/** Below zero where `a` is cheaper. */
export function compareCosts(a: RoundCost, b: RoundCost): number {
  for (const field of FIELDS) if (a[field] !== b[field]) return a[field] - b[field];
  return 0;
}

/** What has happened before a call: whom it may clash with, and where the technician stands. */
export interface RoundState {
  readonly last: RoundCall | undefined;
  /** As the laptop was set last; a call that needs none leaves it. */
  readonly laptop: string | undefined;
}

export const AT_THE_DOOR: RoundState = { last: undefined, laptop: undefined };

/** What going from one call to the next costs by itself: everything but clashes and power. */
export function stepCost({ last, laptop }: RoundState, next: RoundCall): RoundCost {
  const changes = next.laptop !== undefined && laptop !== undefined && laptop !== next.laptop;
  const isOther = last !== undefined && last.cabinet !== next.cabinet;
  return {
    clashes: 0,
    laptop: changes ? 1 : 0,
    areas: last !== undefined && last.area !== next.area ? 1 : 0,
    cabinets: isOther ? 1 : 0,
    walk: isOther ? Math.abs(last.cabinet - next.cabinet) : 0,
    power: 0,
  };
}

export const stateAfter = ({ laptop }: RoundState, call: RoundCall): RoundState => ({
  last: call,
  laptop: call.laptop ?? laptop,
});

export const addCosts = (a: RoundCost, b: RoundCost): RoundCost => ({
  clashes: a.clashes + b.clashes,
  laptop: a.laptop + b.laptop,
  areas: a.areas + b.areas,
  cabinets: a.cabinets + b.cabinets,
  walk: a.walk + b.walk,
  power: a.power + b.power,
});

/** The cost of a whole order. Grows with the calls, not with their square. */
export function costOf(order: readonly RoundCall[]): RoundCost {
  let cost = NO_COST;
  let state = AT_THE_DOOR;
  const done = new Set<string>();
  const left = new LeftBehind(order);
  for (const call of order) {
    const { clashes, power } = { clashes: left.clashesOf(call), power: cutBy(call, done) };
    cost = addCosts(cost, { ...stepCost(state, call), clashes, power });
    state = stateAfter(state, call);
    done.add(call.deviceId);
    left.finish(call);
  }
  return cost;
}

/** How many of those that are done lose their network while this one is without power. */
export function cutBy({ behind }: RoundCall, done: ReadonlySet<string>): number {
  let count = 0;
  for (const one of behind) if (done.has(one)) count += 1;
  return count;
}

/** Devices with a factory address that were left undone in cabinets one has been at. */
class LeftBehind {
  /** By cabinet and factory address, those that are still to do. */
  private readonly open = new Map<number, Map<string, number>>();
  private readonly visited = new Set<number>();
  /** By factory address, those in visited cabinets. */
  private readonly powered = new Map<string, number>();

  constructor(calls: readonly RoundCall[]) {
    for (const { factory, cabinet } of calls) {
      const here = this.open.get(cabinet) ?? new Map<string, number>();
      this.open.set(cabinet, here);
      if (factory !== undefined) add(here, factory, 1);
    }
  }

  clashesOf({ factory, cabinet }: RoundCall): number {
    if (factory === undefined) return 0;
    const here = this.visited.has(cabinet) ? (this.open.get(cabinet)?.get(factory) ?? 0) : 0;
    return (this.powered.get(factory) ?? 0) - here;
  }

  finish({ factory, cabinet }: RoundCall): void {
    const here = this.open.get(cabinet);
    if (factory !== undefined && here) {
      add(here, factory, -1);
      if (this.visited.has(cabinet)) add(this.powered, factory, -1);
    }
    if (this.visited.has(cabinet)) return;
    this.visited.add(cabinet);
    for (const [address, count] of here ?? []) add(this.powered, address, count);
  }
}

const add = (counts: Map<string, number>, key: string, by: number): void =>
  void counts.set(key, (counts.get(key) ?? 0) + by);
