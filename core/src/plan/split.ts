import {
  containsPrefix,
  fail,
  formatPrefix,
  hostCountOf,
  ok,
  overlaps,
  toIpv4,
  toPrefixLength,
  type Issue,
  type Prefix,
  type PrefixLength,
  type Result,
} from '../net';
import type { Need } from './model';

/** A need with the network it got. */
interface Placed {
  readonly need: Need;
  readonly prefix: Prefix;
  /** Hosts the need asks for, growth, gateway and held addresses included. */
  readonly hosts: number;
}

/** A need that did not fit, and what there was. */
interface Unplaced {
  readonly need: Need;
  readonly wanted: PrefixLength;
  /** The largest free block that is left, undefined where all is taken. */
  readonly largest: PrefixLength | undefined;
}

export interface Split {
  readonly placed: readonly Placed[];
  readonly unplaced: readonly Unplaced[];
  /** What is left over: the fewest aligned blocks, lowest first. */
  readonly left: readonly Prefix[];
}

/**
 * R-NEED: how many hosts a need asks for: ceil(devices × (1 + growth)) + gateway + held addresses.
 * @example hostsOf({ devices: 40, growthPercent: 20, held: 0 }) // 49
 */
export const hostsOf = (need: Pick<Need, 'devices' | 'growthPercent' | 'held'>): number =>
  Math.ceil((need.devices * (100 + need.growthPercent)) / 100) + 1 + need.held;

/**
 * R-NEED: the smallest network that holds the need with its network and broadcast address; never a
 * /31 or /32, since a gateway is among the hosts of a plant subnet.
 * @param block a whole /24 is taken where it is chosen and the block has one
 */
export function lengthFor(need: Need, block: Prefix): PrefixLength | undefined {
  const hosts = hostsOf(need);
  let length = 30;
  while (length >= 0 && 2 ** (32 - length) - 2 < hosts) length -= 1;
  if (length < 0) return undefined;
  return toPrefixLength(need.isWhole24 && block.length <= 24 ? Math.min(24, length) : length);
}

/**
 * R-SPLIT: places needs in a block. What is fixed stays where it is; each other one, the largest
 * first and equals in their order, goes where the largest aligned free block remains largest, ties
 * to the lowest. The same needs always give the same networks.
 * @returns refusals of the fixed ones: `split.outside`, `split.overlap`, `split.small`
 */
export function splitBlock(block: Prefix, needs: readonly Need[]): Result<Split, readonly Issue[]> {
  const issues = fixedIssues(block, needs);
  if (issues.length > 0) return fail(issues);
  const free = new FreeBlocks(block);
  const placed = new Map<number, Prefix>();
  const waiting: { readonly index: number; readonly length: PrefixLength }[] = [];
  const unplaced = new Map<number, Unplaced>();
  needs.forEach((need, index) => {
    if (need.fixed) {
      free.cut(need.fixed);
      placed.set(index, need.fixed);
    } else waiting.push({ index, length: lengthFor(need, block) ?? toPrefixLength(0) });
  });
  waiting.sort((a, b) => a.length - b.length || a.index - b.index);
  for (const { index, length } of waiting) {
    const need = needs[index];
    if (!need) continue;
    const prefix = free.take(length);
    if (prefix) placed.set(index, prefix);
    else unplaced.set(index, { need, wanted: length, largest: free.largest() });
  }
  return ok({
    placed: needs.flatMap((need, index) => {
      const prefix = placed.get(index);
      return prefix ? [{ need, prefix, hosts: hostsOf(need) }] : [];
    }),
    unplaced: needs.flatMap((_need, index) => unplaced.get(index) ?? []),
    left: free.all(),
  });
}

/** Every need anew, as if none had a place; shown as a difference before anything moves. */
export const repackBlock = (
  block: Prefix,
  needs: readonly Need[],
): Result<Split, readonly Issue[]> =>
  splitBlock(
    block,
    needs.map((need) => ({ ...need, fixed: undefined })),
  );

function fixedIssues(block: Prefix, needs: readonly Need[]): readonly Issue[] {
  const issues: Issue[] = [];
  const fixed = needs
    .flatMap((need) => (need.fixed ? [{ need, prefix: need.fixed }] : []))
    .sort((a, b) => a.prefix.network - b.prefix.network || a.prefix.length - b.prefix.length);
  fixed.forEach(({ need, prefix }, index) => {
    const facts = { name: need.name, block: formatPrefix(block) };
    const where = formatPrefix(prefix);
    if (!containsPrefix(block, prefix)) issues.push({ code: 'split.outside', where, facts });
    if (hostCountOf(prefix) < hostsOf(need))
      issues.push({ code: 'split.small', where, facts: { ...facts, hosts: hostsOf(need) } });
    const before = fixed[index - 1];
    if (before && overlaps(before.prefix, prefix))
      issues.push({ code: 'split.overlap', where, facts: { ...facts, other: before.need.name } });
  });
  return issues;
}

/** The free part of a block as aligned blocks of powers of two: network numbers by prefix length. */
class FreeBlocks {
  private readonly byLength: number[][] = Array.from({ length: 33 }, () => []);

  constructor(block: Prefix) {
    this.byLength[block.length]?.push(block.network);
  }

  /**
   * The lowest place that leaves the largest free block as it is; the one largest is cut into only
   * where nothing else holds the length. Of two that are equally large one remains, so either will do.
   */
  take(length: PrefixLength): Prefix | undefined {
    const largest = this.byLength.findIndex((list) => list.length > 0);
    if (largest < 0 || largest > length) return undefined;
    let from = -1;
    for (let size = largest; size <= length; size += 1) {
      const list = this.byLength[size] ?? [];
      const isOnlyLargest = size === largest && list.length === 1;
      if (list[0] === undefined || isOnlyLargest) continue;
      if (from < 0 || list[0] < (this.byLength[from]?.[0] ?? Infinity)) from = size;
    }
    if (from < 0) from = largest;
    const network = this.byLength[from]?.shift() ?? 0;
    for (let half = from + 1; half <= length; half += 1) this.put(half, network + 2 ** (32 - half));
    return { network: toIpv4(network), length };
  }

  /** Takes exactly this block out. */
  cut(wanted: Prefix): void {
    for (let length: number = wanted.length; length >= 0; length -= 1) {
      const list = this.byLength[length] ?? [];
      const size = 2 ** (32 - length);
      const at = list.findIndex((one) => one <= wanted.network && wanted.network < one + size);
      if (at < 0) continue;
      let network = list.splice(at, 1)[0] ?? 0;
      for (let half = length + 1; half <= wanted.length; half += 1) {
        const upper = network + 2 ** (32 - half);
        if (wanted.network >= upper) {
          this.put(half, network);
          network = upper;
        } else this.put(half, upper);
      }
      return;
    }
  }

  largest(): PrefixLength | undefined {
    const length = this.byLength.findIndex((list) => list.length > 0);
    return length < 0 ? undefined : toPrefixLength(length);
  }

  all(): readonly Prefix[] {
    return this.byLength
      .flatMap((list, length) =>
        list.map((network) => ({ network: toIpv4(network), length: toPrefixLength(length) })),
      )
      .sort((a, b) => a.network - b.network);
  }

  /** Keeps each list in the order of its networks. */
  private put(length: number, network: number): void {
    const list = this.byLength[length];
    if (!list) return;
    let low = 0;
    let high = list.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((list[middle] ?? 0) < network) low = middle + 1;
      else high = middle;
    }
    list.splice(low, 0, network);
  }
}
