import type { RoundCall } from './call';

/** No setting, no group. */
export const NONE = -1;

/**
 * Calls that stand alike, one laptop setting in one cabinet: they are walked one after the other. What two
 * groups do to each other is counted once.
 */
export class RoundGroups {
  private readonly groups: readonly (readonly RoundCall[])[];
  /** The first call of each stands for it. */
  private readonly heads: readonly RoundCall[];
  readonly setting: Int32Array;
  readonly area: Int32Array;
  readonly cabinet: Int32Array;
  /** Where b was done before, so many of it lose their network by power cycles in a. */
  private readonly cut: readonly Pair[];
  private readonly alike: FactoryAddresses;

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
    this.cabinet = Int32Array.from(this.heads, ({ cabinet }) => cabinet);
    this.cut = cutBetween(this.groups);
    this.alike = new FactoryAddresses(this.groups);
  }

  calls(order: Int32Array): readonly RoundCall[] {
    return [...order].flatMap((at) => this.groups[at] ?? []);
  }

  /** Two orders to begin with: setting by setting, and cabinet by cabinet. */
  starts(): readonly Int32Array[] {
    const all = Int32Array.from(this.heads.keys());
    const by = (first: Int32Array, second: Int32Array) =>
      all.slice().sort((a, b) => {
        const one = (first[a] ?? 0) - (first[b] ?? 0);
        return one === 0 ? (second[a] ?? 0) - (second[b] ?? 0) : one;
      });
    return [by(this.setting, this.cabinet), by(this.cabinet, this.setting)];
  }

  clashes(order: Int32Array): number {
    return this.alike.clashes(order);
  }

  power(order: Int32Array): number {
    if (this.cut.length === 0) return 0;
    const place = placesIn(order);
    let sum = 0;
    for (const { a, b, count } of this.cut) if ((place[b] ?? 0) < (place[a] ?? 0)) sum += count;
    return sum;
  }
}

/** Each value by its number of first appearance; none where it is undefined. */
function numbered(
  heads: readonly RoundCall[],
  valueOf: (call: RoundCall) => string | undefined,
): Int32Array {
  const numbers = new Numbers<string>();
  return Int32Array.from(heads, (head) => {
    const value = valueOf(head);
    return value === undefined ? NONE : numbers.of(value);
  });
}

interface Pair {
  readonly a: number;
  readonly b: number;
  readonly count: number;
}

/** Where in the order each group stands. */
function placesIn(order: Int32Array): readonly number[] {
  const places: number[] = [];
  order.forEach((at, here) => (places[at] = here));
  return places;
}

/** Found from those that hang behind, not by looking at every pair of calls. */
function cutBetween(groups: readonly (readonly RoundCall[])[]): readonly Pair[] {
  const groupsOf = new Map<string, number[]>();
  groups.forEach((group, at) => {
    for (const { deviceId } of group) {
      const known = groupsOf.get(deviceId);
      if (known) known.push(at);
      else groupsOf.set(deviceId, [at]);
    }
  });
  return groups.flatMap((group, a) => {
    const counts = new Map<number, number>();
    for (const { behind } of group)
      for (const device of behind)
        for (const b of groupsOf.get(device) ?? []) counts.set(b, (counts.get(b) ?? 0) + 1);
    return [...counts].map(([b, count]) => ({ a, b, count }));
  });
}

/** Lists of numbers one behind the other: those of `at` stand from `start[at]` to before `start[at + 1]`. */
interface Lists {
  readonly start: Int32Array;
  readonly items: Int32Array;
}

function listsOf(lists: readonly (readonly number[])[]): Lists {
  const start = new Int32Array(lists.length + 1);
  lists.forEach((list, at) => (start[at + 1] = (start[at] ?? 0) + list.length));
  return { start, items: Int32Array.from(lists.flat()) };
}

/**
 * Who has the factory address of whom, counted by cabinet and address (a slot): hundreds of one kind have one
 * address, and the pairs of them are the square of that. Asked as often as orders are weighed.
 */
class FactoryAddresses {
  /** Of each slot: so many calls are in it at first, and their address. */
  private readonly counts: Int32Array;
  private readonly addressOf: Int32Array;
  /** The slots of each cabinet. */
  private readonly slots: Lists;
  /** Of each group its cabinet, and its calls by their slots. */
  private readonly cabinetOf: Int32Array;
  private readonly calls: Lists;
  // Worked with anew for each order.
  private readonly open: Int32Array;
  private readonly powered: Int32Array;
  private readonly visited: Uint8Array;

  constructor(groups: readonly (readonly RoundCall[])[]) {
    const cabinets = new Numbers<number>();
    const addresses = new Numbers<string>();
    const slots = new Numbers<string>();
    const [counts, addressOf]: [number[], number[]] = [[], []];
    const slotsOf: number[][] = [];
    const calls = groups.map((group) =>
      group.flatMap(({ factory, cabinet }) => {
        const place = cabinets.of(cabinet);
        slotsOf[place] ??= [];
        if (factory === undefined) return [];
        const slot = slots.of(`${place} ${factory}`);
        if (slot === counts.length) {
          counts.push(0);
          addressOf.push(addresses.of(factory));
          slotsOf[place].push(slot);
        }
        counts[slot] = (counts[slot] ?? 0) + 1;
        return [slot];
      }),
    );
    this.counts = Int32Array.from(counts);
    this.addressOf = Int32Array.from(addressOf);
    this.slots = listsOf(slotsOf);
    this.cabinetOf = Int32Array.from(groups, ([head]) => (head ? cabinets.of(head.cabinet) : NONE));
    this.calls = listsOf(calls);
    this.open = new Int32Array(counts.length);
    this.powered = new Int32Array(addresses.count);
    this.visited = new Uint8Array(cabinets.count);
  }

  /** What was left undone in a cabinet one has been at has power. Grows with the groups, not with their square. */
  clashes(order: Int32Array): number {
    const { addressOf, cabinetOf, calls, slots, open, powered, visited } = this;
    if (addressOf.length < 2) return 0;
    open.set(this.counts);
    powered.fill(0);
    visited.fill(0);
    let sum = 0;
    for (let place = 0; place < order.length; place += 1) {
      const group = order[place] as number;
      const cabinet = cabinetOf[group] as number;
      const isBack = visited[cabinet] === 1;
      const last = calls.start[group + 1] as number;
      for (let at = calls.start[group] as number; at < last; at += 1) {
        const slot = calls.items[at] as number;
        const address = addressOf[slot] as number;
        // Within one cabinet one is switched on after the other.
        sum += (powered[address] as number) - (isBack ? (open[slot] as number) : 0);
      }
      for (let at = calls.start[group] as number; at < last; at += 1) {
        const slot = calls.items[at] as number;
        open[slot] = (open[slot] as number) - 1;
        if (isBack)
          powered[addressOf[slot] as number] = (powered[addressOf[slot] as number] ?? 0) - 1;
      }
      if (isBack) continue;
      visited[cabinet] = 1;
      const end = slots.start[cabinet + 1] as number;
      for (let at = slots.start[cabinet] as number; at < end; at += 1) {
        const slot = slots.items[at] as number;
        const address = addressOf[slot] as number;
        powered[address] = (powered[address] as number) + (open[slot] as number);
      }
    }
    return sum;
  }
}

/** Each value by its number of first appearance. */
class Numbers<T> {
  private readonly known = new Map<T, number>();

  get count(): number {
    return this.known.size;
  }

  of(value: T): number {
    const known = this.known.get(value);
    if (known !== undefined) return known;
    this.known.set(value, this.known.size);
    return this.known.size - 1;
  }
}
