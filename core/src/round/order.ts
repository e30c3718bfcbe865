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
import { Walk } from './walk';

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
/**
 * A round is planned again whenever something is found otherwise: a large one must not take longer than it is worth.
 * So many groups are looked at in all, and each is tried so many places away.
 */
const MOST_STEPS = 6_000_000;
const FARTHEST = 120;

function improve(calls: readonly RoundCall[]): readonly RoundCall[] {
  const groups = new RoundGroups(calls);
  const [best] = groups
    .starts()
    .map((order) => new Walk(groups, order))
    .sort((a, b) => compareCosts(a.cost, b.cost));
  return best ? groups.calls(settle(groups, best).order) : [];
}

/** Moves runs of groups, and turns them round, while the whole gets cheaper. */
function settle(groups: RoundGroups, start: Walk): Walk {
  const count = start.order.length;
  let best = start;
  let steps = 0;
  for (let pass = 0; pass < MOST_PASSES; pass += 1) {
    const before = best;
    for (let length = 1; length <= LONGEST_RUN; length += 1)
      for (let from = 0; from + length <= count; from += 1) {
        if (steps > MOST_STEPS) return best;
        const tried = cheapestMove(groups, best, from, length);
        best = tried.best;
        steps += tried.steps;
      }
    if (best === before) break;
  }
  return best;
}

interface Tried {
  readonly best: Walk;
  readonly steps: number;
}

function cheapestMove(groups: RoundGroups, now: Walk, from: number, length: number): Tried {
  const { order } = now;
  let { cost } = now;
  let found: { readonly first: number; readonly window: Int32Array } | undefined;
  let steps = 0;
  const run = order.slice(from, from + length);
  const turned = run.slice().reverse();
  const end = Math.min(order.length - length, from + FARTHEST);
  for (let to = Math.max(0, from - FARTHEST); to <= end; to += 1)
    for (const piece of length > 1 ? [run, turned] : [run]) {
      if (to === from && piece === run) continue;
      const window = moved(order, from, to, piece);
      const first = Math.min(from, to);
      steps += window.length;
      const cheaper = now.cheaper(first, window, cost);
      if (!cheaper) continue;
      cost = cheaper;
      found = { first, window };
    }
  if (!found) return { best: now, steps };
  const next = order.slice();
  next.set(found.window, found.first);
  return { best: new Walk(groups, next), steps };
}

/** What stands between, where a run is taken out at `from` and put in so that it begins at `to`. */
function moved(order: Int32Array, from: number, to: number, piece: Int32Array): Int32Array {
  const { length } = piece;
  const window = new Int32Array(Math.abs(to - from) + length);
  if (to <= from) {
    window.set(piece, 0);
    window.set(order.subarray(to, from), length);
  } else {
    window.set(order.subarray(from + length, to + length), 0);
    window.set(piece, to - from);
  }
  return window;
}
