import type { RoundCall } from './call';
import { compareCosts, type RoundCost } from './cost';

const NONE = -1;

/**
 * Calls that stand alike, one laptop setting in one cabinet: they are walked one after the other. What two
 * groups do to each other is counted once, so that an order of groups is weighed quickly.
 */
export class RoundGroups {
  private readonly groups: readonly (readonly RoundCall[])[];
  /** The first call of each stands for it. */
  private readonly heads: readonly RoundCall[];
  private readonly setting: Int16Array;
  private readonly area: Int16Array;
  private readonly cabinet: Int16Array;
  /** Where b was done before, so many of it lose their network by power cycles in a. */
  private readonly cut: readonly Pair[];
  /** Pairs of one factory address, in different cabinets. */
  private readonly alike: readonly Pair[];

  constructor(calls: readonly RoundCall[]) {
    const byPlace = new Map<string, RoundCall[]>();
    for (const call of calls) {
      const key = `${call.cabinet} ${call.laptop ?? ''}`;
      const group = byPlace.get(key) ?? [];
      byPlace.set(key, group);
      group.push(call);
    }
    // Who others hang behind comes before them, so that its power cycle cuts nobody who is done.
    this.groups = [...byPlace.values()].map((group) =>
      [...group].sort((a, b) => b.behind.size - a.behind.size),
    );
    this.heads = this.groups.flatMap(([head]) => head ?? []);
    this.setting = numbered(this.heads, ({ laptop }) => laptop);
    this.area = numbered(this.heads, ({ area }) => area);
    this.cabinet = Int16Array.from(this.heads, ({ cabinet }) => cabinet);
    this.cut = this.counted((a, b) => (a.behind.has(b.deviceId) ? 1 : 0));
    this.alike = this.counted((a, b) =>
      a.factory !== undefined && a.factory === b.factory && a.cabinet !== b.cabinet ? 1 : 0,
    );
  }

  calls(order: Int16Array): readonly RoundCall[] {
    return [...order].flatMap((at) => this.groups[at] ?? []);
  }

  /** Two orders to begin with: setting by setting, and cabinet by cabinet. */
  starts(): readonly Int16Array[] {
    const all = Int16Array.from(this.heads.keys());
    const by = (first: Int16Array, second: Int16Array) =>
      all.slice().sort((a, b) => {
        const one = (first[a] ?? 0) - (first[b] ?? 0);
        return one === 0 ? (second[a] ?? 0) - (second[b] ?? 0) : one;
      });
    return [by(this.setting, this.cabinet), by(this.cabinet, this.setting)];
  }

  /**
   * What an order of groups costs, field by field as in `RoundCost`; undefined as soon as it is not cheaper
   * than another. Written without objects: it runs some hundred thousand times for one round.
   */
  cheaper(order: Int16Array, than: RoundCost | undefined): RoundCost | undefined {
    // Where the other has none, clashes need a look only if all the rest is cheaper.
    const first = than === undefined || than.clashes > 0 ? this.clashes(order) : 0;
    if (than && first > than.clashes) return undefined;
    let [laptop, areas, cabinets, walk] = [0, 0, 0, 0];
    let [setting, area, cabinet] = [NONE, NONE, NONE];
    const canEnd = than !== undefined && first === than.clashes;
    for (const at of order) {
      const next = this.setting[at] ?? NONE;
      if (next !== NONE) {
        if (setting !== NONE && setting !== next) laptop += 1;
        setting = next;
      }
      const place = this.cabinet[at] ?? NONE;
      if (cabinet !== NONE && cabinet !== place) {
        cabinets += 1;
        walk += Math.abs(cabinet - place);
      }
      cabinet = place;
      const part = this.area[at] ?? NONE;
      if (area !== NONE && area !== part) areas += 1;
      area = part;
      // What only grows cannot become cheaper again.
      if (canEnd && (laptop > than.laptop || (laptop === than.laptop && areas > than.areas)))
        return undefined;
    }
    const so = { clashes: first, laptop, areas, cabinets, walk, power: 0 };
    if (than && compareCosts(so, than) >= 0) return undefined;
    const clashes = than?.clashes === 0 ? this.clashes(order) : first;
    if (than && clashes > than.clashes) return undefined;
    const cost = { ...so, clashes, power: this.power(order) };
    return than && compareCosts(cost, than) >= 0 ? undefined : cost;
  }

  /** What is counted between any two groups, where it is anything. */
  private counted(between: (a: RoundCall, b: RoundCall) => number): readonly Pair[] {
    return this.groups.flatMap((group, a) =>
      this.groups.flatMap((other, b) => {
        let count = 0;
        for (const one of group) for (const two of other) count += between(one, two);
        return count > 0 ? [{ a, b, count }] : [];
      }),
    );
  }

  private power(order: Int16Array): number {
    if (this.cut.length === 0) return 0;
    const place = placesIn(order);
    let sum = 0;
    for (const { a, b, count } of this.cut) if ((place[b] ?? 0) < (place[a] ?? 0)) sum += count;
    return sum;
  }

  /** What was left undone in a cabinet one has been at has power. */
  private clashes(order: Int16Array): number {
    if (this.alike.length === 0) return 0;
    const place = placesIn(order);
    const visited = new Map<number, number>();
    order.forEach((at, here) => {
      const cabinet = this.cabinet[at] ?? NONE;
      if (!visited.has(cabinet)) visited.set(cabinet, here);
    });
    let sum = 0;
    for (const { a, b, count } of this.alike) {
      const here = place[a] ?? 0;
      const isLeft = (place[b] ?? 0) > here;
      if (isLeft && (visited.get(this.cabinet[b] ?? NONE) ?? here) < here) sum += count;
    }
    return sum;
  }
}

/** Each value by its number of first appearance; none where it is undefined. */
function numbered(
  heads: readonly RoundCall[],
  valueOf: (call: RoundCall) => string | undefined,
): Int16Array {
  const numbers = new Map<string, number>();
  return Int16Array.from(heads, (head) => {
    const value = valueOf(head);
    if (value === undefined) return NONE;
    if (!numbers.has(value)) numbers.set(value, numbers.size);
    return numbers.get(value) ?? NONE;
  });
}

interface Pair {
  readonly a: number;
  readonly b: number;
  readonly count: number;
}

/** Where in the order each group stands. */
function placesIn(order: Int16Array): readonly number[] {
  const places: number[] = [];
  order.forEach((at, here) => (places[at] = here));
  return places;
}
