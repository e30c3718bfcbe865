import { ZERO_MAC, type Ipv4, type MacAddress } from '../net';
import type { Plan } from './model';
import { isKeyed } from './words';

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
export type Return =
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

export interface Returned {
  readonly interfaceId: string;
  readonly how: Return;
  readonly row: DrillRow | undefined;
}

/**
 * R-DRILL: every bound interface of the plan by how it came back, worst first. One that no MAC is bound to cannot be
 * told and is left out, and so is one of a subnet of which nobody was heard: its cable is not on this wire.
 * @param macOf the MAC that counts for an interface
 */
export function returnsOf(
  plan: Plan,
  rows: readonly DrillRow[],
  macOf: (interfaceId: string) => MacAddress | undefined,
): readonly Returned[] {
  const byMac = new Map(rows.map((row) => [row.mac, row]));
  const rowOf = (id: string) => byMac.get(macOf(id) ?? NOBODY);
  const heard = new Set(
    plan.devices.flatMap(({ interfaces }) =>
      interfaces.flatMap(({ id, subnetId }) => (rowOf(id) ? [subnetId] : [])),
    ),
  );
  const all = plan.devices.flatMap((device) =>
    device.interfaces.flatMap((at): readonly Returned[] => {
      if (macOf(at.id) === undefined || !heard.has(at.subnetId)) return [];
      const row = rowOf(at.id);
      return [{ interfaceId: at.id, how: returnOf(row, at.address, isKeyed(device.way)), row }];
    }),
  );
  return all.sort(
    (a, b) =>
      WORST_FIRST.indexOf(a.how) - WORST_FIRST.indexOf(b.how) ||
      (a.row?.firstAt ?? Infinity) - (b.row?.firstAt ?? Infinity),
  );
}

/** No device has it. */
const NOBODY = ZERO_MAC;

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
