import type { Ipv4, MacAddress } from '../net';
import { isKeyed, type Way } from './words';

/** One that spoke after power came back. */
export interface DrillRow {
  readonly mac: MacAddress;
  /** When it spoke first. Milliseconds since 1970, as all times here. */
  readonly firstAt: number;
  readonly asked:
    { readonly at: number; readonly message: string; readonly count: number } | undefined;
  readonly answered: { readonly at: number; readonly by: Ipv4; readonly gave: Ipv4 } | undefined;
  /** The address it said last that it has. */
  readonly address: { readonly value: Ipv4; readonly at: number } | undefined;
}

export interface DrillState {
  /** `off`: about to be switched off; `on`: coming back; `spoiled`: something of ours was sent meanwhile. */
  readonly phase: 'none' | 'off' | 'on' | 'ended' | 'spoiled';
  readonly onAt: number | undefined;
  readonly endedAt: number | undefined;
  readonly rows: readonly DrillRow[];
}

/** How a planned interface came back from a cold start. */
type Return =
  /** At its planned address, without asking: it keeps it. */
  | 'kept'
  /** Somebody else gave it the planned address, as its way wants. */
  | 'given'
  /** It asks and is given nothing: it was never told to keep its address. */
  | 'asks'
  /** It does not keep its address: somebody answered it, and without that it had none. */
  | 'leans'
  /** It has another address. */
  | 'elsewhere'
  /** It spoke, and did not say yet where it is. */
  | 'starting'
  | 'silent';

/** An interface whose return can be told: its MAC is known. */
export interface Expected {
  readonly interfaceId: string;
  readonly subnetId: string;
  readonly way: Way;
  /** As planned. */
  readonly address: Ipv4;
  readonly mac: MacAddress | undefined;
}

export interface Returned<T extends Expected = Expected> {
  readonly expected: T;
  readonly how: Return;
  readonly row: DrillRow | undefined;
}

/**
 * R-DRILL: every bound interface by how it came back. One that no MAC is bound to cannot be told and is
 * left out, and so is one of a subnet of which nobody was heard: its cable is not on this wire.
 */
export function returnsOf<T extends Expected>(
  interfaces: readonly T[],
  rows: readonly DrillRow[],
): readonly Returned<T>[] {
  const byMac = new Map(rows.map((row) => [row.mac, row]));
  const all = interfaces.flatMap((expected) => {
    const { mac } = expected;
    return mac === undefined ? [] : [{ expected, row: byMac.get(mac) }];
  });
  const heard = new Set(all.flatMap(({ expected, row }) => (row ? [expected.subnetId] : [])));
  return all
    .filter(({ expected }) => heard.has(expected.subnetId))
    .map(({ expected, row }) => ({
      ...{ expected, row },
      how: returnOf(row, expected.address, isKeyed(expected.way)),
    }));
}

/** What needs a hand stands above; of the same the first that came back. */
export const worstFirst = <T extends Expected>(
  returns: readonly Returned<T>[],
): readonly Returned<T>[] =>
  [...returns].sort(
    (a, b) =>
      WORST_FIRST.indexOf(a.how) - WORST_FIRST.indexOf(b.how) ||
      (a.row?.firstAt ?? Infinity) - (b.row?.firstAt ?? Infinity),
  );

const WORST_FIRST: readonly Return[] = [
  ...(['asks', 'elsewhere', 'leans', 'silent', 'starting', 'given', 'kept'] as const),
];

/** How one came back. @param isGiven by its way it is given its address at every start */
export function returnOf(row: DrillRow | undefined, planned: Ipv4, isGiven: boolean): Return {
  if (!row) return 'silent';
  const { asked, answered, address } = row;
  if (address && address.value !== planned) return 'elsewhere';
  if (asked && answered) return isGiven ? 'given' : 'leans';
  // Some ask and take what they kept when nobody answers.
  if (asked) return address ? 'kept' : 'asks';
  return address ? 'kept' : 'starting';
}
