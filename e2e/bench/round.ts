import { compareCosts, costOf, orderRound, type RoundCall } from '@ipsonomo/core/round';
import { median } from './figures';

// The order of a round, bundled as the server is. Prints one JSON object.

/** A seeded generator, so that every run is the same. */
function seeded(seed: number): (below: number) => number {
  let state = seed;
  return (below) => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) % below;
}

const SETTINGS = [undefined, 'a', 'b', 'a', 'a'] as const;

/** Cabinets of about eight devices, six an area, most of one setting; a few chains and factory addresses. */
function roundOf(count: number, seed: number): readonly RoundCall[] {
  const draw = seeded(seed);
  const cabinets = Math.max(3, Math.round(count / 8));
  return Array.from({ length: count }, (_, i) => {
    const cabinet = draw(cabinets);
    return {
      ...{ id: `c${i}`, deviceId: `d${i}`, area: `area ${Math.floor(cabinet / 6)}`, cabinet },
      laptop: SETTINGS[draw(SETTINGS.length)],
      factory: draw(10) === 0 ? `f${draw(3)}` : undefined,
      behind: new Set(draw(8) === 0 ? [`d${draw(count)}`] : []),
    };
  });
}

function* ordersOf<T>(items: readonly T[]): Generator<readonly T[]> {
  if (items.length === 0) yield [];
  for (const [at, item] of items.entries())
    for (const rest of ordersOf([...items.slice(0, at), ...items.slice(at + 1)]))
      yield [item, ...rest];
}

function shuffled<T>(items: readonly T[], draw: (below: number) => number): readonly T[] {
  const all = [...items];
  for (let i = all.length - 1; i > 0; i -= 1) {
    const j = draw(i + 1);
    [all[i], all[j]] = [all[j] as T, all[i] as T];
  }
  return all;
}

const times: number[] = [];
for (let seed = 1; seed <= 9; seed += 1) {
  const calls = roundOf(300, seed);
  const start = performance.now();
  orderRound(calls);
  times.push(performance.now() - start);
}

let searches = 0;
let equal = 0;
for (let count = 2; count <= 8; count += 1)
  for (let seed = 1; seed <= (count < 8 ? 10 : 3); seed += 1) {
    const calls = roundOf(count, seed);
    const own = costOf(orderRound(calls));
    let best = own;
    for (const order of ordersOf(calls)) {
      const cost = costOf(order);
      if (compareCosts(cost, best) < 0) best = cost;
    }
    searches += 1;
    if (compareCosts(own, best) === 0) equal += 1;
  }

const sixty = roundOf(60, 60);
const own = costOf(orderRound(sixty));
const draw = seeded(7);
let cheaper = 0;
for (let i = 0; i < 100_000; i += 1)
  if (compareCosts(costOf(shuffled(sixty, draw)), own) < 0) cheaper += 1;

process.stdout.write(JSON.stringify({ millis: median(times.slice(1)), searches, equal, cheaper }));
