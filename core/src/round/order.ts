import type { RoundCall } from './call';
import {
  addCosts,
  AT_THE_DOOR,
  compareCosts,
  cutBy,
  NO_COST,
  stateAfter,
  stepCost,
  type RoundCost,
  type RoundState,
} from './cost';
import { RoundGroups } from './groups';

/** Up to so many calls every order is weighed. */
const EXACT = 9;

/**
 * The cheapest order of calls by `RoundCost`: every order is weighed for a few calls; for many, calls
 * that stand alike are kept together and whole groups are moved while that is cheaper.
 */
export function orderRound(calls: readonly RoundCall[]): readonly RoundCall[] {
  return calls.length <= EXACT ? cheapest(calls) : improve(calls);
}

interface Reached {
  readonly cost: RoundCost;
  readonly state: RoundState;
  readonly order: readonly RoundCall[];
}

/**
 * By sets of calls done (Held and Karp): of all orders of a set that end alike only the cheapest is
 * carried on, since what comes after depends on the set and the end alone.
 */
function cheapest(calls: readonly RoundCall[]): readonly RoundCall[] {
  let reached: ReadonlyMap<string, Reached> = new Map([
    ['', { cost: NO_COST, state: AT_THE_DOOR, order: [] }],
  ]);
  for (let round = 0; round < calls.length; round += 1) {
    const next = new Map<string, Reached>();
    for (const { cost, state, order } of reached.values()) {
      const done = new Set(order);
      const devices = new Set(order.map(({ deviceId }) => deviceId));
      calls.forEach((call, at) => {
        if (done.has(call)) return;
        const step = {
          ...stepCost(state, call),
          clashes: clashesAfter(calls, order, call),
          power: cutBy(call, devices),
        };
        const one = {
          cost: addCosts(cost, step),
          state: stateAfter(state, call),
          order: [...order, call],
        };
        const key = `${setKey(calls, one.order)} ${at} ${one.state.laptop ?? ''}`;
        const known = next.get(key);
        if (!known || compareCosts(one.cost, known.cost) < 0) next.set(key, one);
      });
    }
    reached = next;
  }
  const all = [...reached.values()].sort((a, b) => compareCosts(a.cost, b.cost));
  return all[0]?.order ?? [];
}

const setKey = (calls: readonly RoundCall[], done: readonly RoundCall[]): number =>
  done.reduce((bits, call) => bits | (1 << calls.indexOf(call)), 0);

/** Devices with this factory address that were left undone in cabinets one has been at. */
function clashesAfter(
  calls: readonly RoundCall[],
  order: readonly RoundCall[],
  { factory, cabinet }: RoundCall,
): number {
  if (factory === undefined) return 0;
  const visited = new Set(order.map((one) => one.cabinet));
  return calls.filter(
    (one) =>
      one.factory === factory &&
      one.cabinet !== cabinet &&
      visited.has(one.cabinet) &&
      !order.includes(one),
  ).length;
}

/** So many times every run of groups is tried in every place, unless nothing gets cheaper before. */
const MOST_PASSES = 6;
const LONGEST_RUN = 3;
/** So many orders are weighed at most: a round is planned again whenever something is found otherwise. */
const MOST_ORDERS = 250_000;

function improve(calls: readonly RoundCall[]): readonly RoundCall[] {
  const groups = new RoundGroups(calls);
  let best: Settled | undefined;
  for (const start of groups.starts()) {
    const cost = groups.cheaper(start, best?.cost);
    if (cost) best = { order: start, cost };
  }
  return best ? groups.calls(settle(groups, best).order) : [];
}

interface Settled {
  /** Places of groups. */
  readonly order: Int16Array;
  readonly cost: RoundCost;
}

/** Moves runs of groups, and turns them round, while the whole gets cheaper. */
function settle(groups: RoundGroups, start: Settled): Settled {
  const count = start.order.length;
  let best = start;
  let weighed = 0;
  for (let pass = 0; pass < MOST_PASSES; pass += 1) {
    const before = best;
    for (let length = 1; length <= LONGEST_RUN; length += 1)
      for (let from = 0; from + length <= count; from += 1) {
        if (weighed > MOST_ORDERS) return best;
        weighed += count * (length > 1 ? 2 : 1);
        best = cheapestMove(groups, best, from, length);
      }
    if (best === before) break;
  }
  return best;
}

function cheapestMove(groups: RoundGroups, now: Settled, from: number, length: number): Settled {
  let best = now;
  const { order } = now;
  const run = order.slice(from, from + length);
  const turned = run.slice().reverse();
  const tried = new Int16Array(order.length);
  for (let to = 0; to + length <= order.length; to += 1)
    for (const piece of length > 1 ? [run, turned] : [run]) {
      if (to === from && piece === run) continue;
      moved(order, from, length, to, piece, tried);
      const cost = groups.cheaper(tried, best.cost);
      if (cost) best = { order: tried.slice(), cost };
    }
  return best;
}

/** The order with a run taken out at `from` and put in so that it begins at `to`. */
function moved(
  order: Int16Array,
  from: number,
  length: number,
  to: number,
  piece: Int16Array,
  into: Int16Array,
): void {
  if (to <= from) {
    into.set(order.subarray(0, to), 0);
    into.set(order.subarray(to, from), to + length);
    into.set(order.subarray(from + length), from + length);
  } else {
    into.set(order.subarray(0, from), 0);
    into.set(order.subarray(from + length, to + length), from);
    into.set(order.subarray(to + length), to + length);
  }
  into.set(piece, to);
}
