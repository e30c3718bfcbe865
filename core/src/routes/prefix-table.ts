import { lastOf, type Ipv4, type Prefix } from '../net';

/** A line of a routing table. */
export interface PrefixEntry<T> {
  readonly prefix: Prefix;
  readonly value: T;
}

const NONE = -1;

/**
 * R-LONGEST-PREFIX: a table in which the longest prefix that holds an address wins (RFC 1812 §5.2.4.3,
 * RFC 4632 §5.1); of two equal prefixes the first. Built once into ranges that do not overlap, each with the
 * entry that wins in it; looked up by halving.
 */
export class PrefixTable<T> {
  /** Where each range begins, ascending; the first is 0. */
  private readonly starts: Uint32Array;
  /** The entry of each range, or none. */
  private readonly winners: Int32Array;
  private readonly values: readonly T[];

  constructor(entries: readonly PrefixEntry<T>[]) {
    const order = entries.map((entry, at) => ({ ...entry.prefix, last: lastOf(entry.prefix), at }));
    // Wider ones first where two begin alike, and the first of equals last, so that it covers the others.
    order.sort((a, b) => a.network - b.network || a.length - b.length || b.at - a.at);
    const starts: number[] = [0];
    const winners: number[] = [NONE];
    const open: { readonly last: number; readonly at: number }[] = [];
    const begin = (start: number, at: number) => {
      if (starts.at(-1) === start) winners[winners.length - 1] = at;
      else if (winners.at(-1) !== at) {
        starts.push(start);
        winners.push(at);
      }
    };
    const closeBefore = (start: number) => {
      for (let top = open.at(-1); top && top.last < start; top = open.at(-1)) {
        open.pop();
        begin(top.last + 1, open.at(-1)?.at ?? NONE);
      }
    };
    for (const { network, last, at } of order) {
      closeBefore(network);
      begin(network, at);
      open.push({ last, at });
    }
    closeBefore(2 ** 32);
    if (starts.at(-1) === 2 ** 32) {
      starts.pop();
      winners.pop();
    }
    this.starts = Uint32Array.from(starts);
    this.winners = Int32Array.from(winners);
    this.values = entries.map(({ value }) => value);
  }

  /** The value of the longest prefix that holds the address; undefined where none does. */
  find(address: Ipv4): T | undefined {
    const winner = this.winners[rangeAt(this.starts, address)] ?? NONE;
    return winner === NONE ? undefined : this.values[winner];
  }
}

/** The number of the range that holds a value, of ranges by their beginnings: ascending, the first at 0. */
export function rangeAt(starts: Uint32Array | Float64Array, value: number): number {
  let low = 0;
  let high = starts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >>> 1;
    if ((starts[middle] ?? 0) <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}
