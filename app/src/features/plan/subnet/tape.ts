import { ROLE_WORDS } from '@ipsonomo/language';
import {
  containsAddress,
  lastOf,
  rangeHas,
  roleOf,
  sizeOf,
  toIpv4,
  toPrefixLength,
  type Ipv4,
  type Prefix,
} from '@ipsonomo/core/net';
import {
  isStillHeld,
  type Device,
  type Plan,
  type PlannedInterface,
  type Role,
  type Subnet,
} from '@ipsonomo/core/plan';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';

/** What one address of a subnet is. */
export type Use =
  | { readonly kind: 'given'; readonly devices: readonly Device[] }
  | { readonly kind: 'edge'; readonly which: 'network' | 'broadcast' }
  | { readonly kind: 'gateway' }
  | { readonly kind: 'held'; readonly note: string }
  | { readonly kind: 'freed'; readonly whose: string }
  | { readonly kind: 'reserved'; readonly role: Role }
  | { readonly kind: 'free'; readonly role: Role | undefined };

/** Everything that is known of the addresses of a subnet, asked one by one. */
export class Tape {
  private readonly given = new Map<Ipv4, PlannedInterface[]>();
  private readonly freed: ReadonlyMap<Ipv4, string>;

  constructor(
    plan: Plan,
    private readonly subnet: Subnet,
    now: number,
    lastNamed: number,
  ) {
    for (const device of plan.devices)
      for (const at of device.interfaces) {
        if (at.subnetId !== subnet.id) continue;
        const list = this.given.get(at.address);
        if (list) list.push({ device, at });
        else this.given.set(at.address, [{ device, at }]);
      }
    this.freed = new Map(
      plan.freed
        .filter((one) => one.subnetId === subnet.id && isStillHeld(one, now, lastNamed))
        .map((one) => [one.address, one.whose]),
    );
  }

  useOf(address: Ipv4): Use {
    const { prefix, gateway, held, bands } = this.subnet;
    const members = this.given.get(address);
    if (members) return { kind: 'given', devices: members.map(({ device }) => device) };
    const role = roleOf(prefix, address);
    if (role === 'network' || role === 'broadcast') return { kind: 'edge', which: role };
    if (address === gateway) return { kind: 'gateway' };
    const range = held.find((one) => rangeHas(one, address));
    if (range) return { kind: 'held', note: range.note };
    const whose = this.freed.get(address);
    if (whose !== undefined) return { kind: 'freed', whose };
    const band = bands.find((one) => rangeHas(one, address))?.role;
    if (band === 'pool' || band === 'held' || band === 'laptops')
      return { kind: 'reserved', role: band };
    return { kind: 'free', role: band };
  }

  /** How many addresses of a part are given. */
  givenIn(part: Prefix): number {
    let count = 0;
    for (const address of this.given.keys()) if (containsAddress(part, address)) count += 1;
    return count;
  }
}

/** The parts a large network is taken apart into on the way to single addresses: up to 16 at once. */
export function partsOf(view: Prefix): readonly Prefix[] {
  const length = toPrefixLength(Math.min(24, view.length + 4));
  return Array.from({ length: 2 ** (length - view.length) }, (_, index) => ({
    network: toIpv4(view.network + index * 2 ** (32 - length)),
    length,
  }));
}

export interface TapeRow {
  /** The tens of the last number: row 8 has 80 to 89. */
  readonly tens: number;
  /** Ten places, undefined where the network does not reach. */
  readonly cells: readonly (Ipv4 | undefined)[];
}

/** A network of at most a /24 in rows of ten, as its last numbers are read. */
export function rowsOfTape(view: Prefix): readonly TapeRow[] {
  const base = toIpv4((view.network & 0xffffff00) >>> 0);
  const first = view.network & 255;
  const last = lastOf(view) & 255;
  const rows: TapeRow[] = [];
  for (let tens = Math.floor(first / 10); tens * 10 <= last; tens += 1)
    rows.push({
      tens,
      cells: Array.from({ length: 10 }, (_, place) => {
        const value = tens * 10 + place;
        return value < first || value > last ? undefined : toIpv4(base + value);
      }),
    });
  return rows;
}

/** What an address is, in words. */
export function useWords(use: Use): string {
  switch (use.kind) {
    case 'given':
      return use.devices.map((one) => one.title).join(' and ');
    case 'edge':
      return use.which === 'network'
        ? SUBNET_WORDS.theNameOfTheNetworkItself
        : SUBNET_WORDS.everybodyInTheSubnet;
    case 'gateway':
      return SUBNET_WORDS.theGatewayOfTheSubnet;
    case 'held':
      return SUBNET_WORDS.heldByOthers({ note: use.note || SUBNET_WORDS.noNote });
    case 'freed':
      return SUBNET_WORDS.wasSUntilLatelyAndIs({ whose: use.whose });
    case 'reserved':
      return SUBNET_WORDS.ofTheBandNotForDevices({ role: ROLE_WORDS[use.role] });
    case 'free':
      return use.role
        ? SUBNET_WORDS.freeOfTheBand({ role: ROLE_WORDS[use.role] })
        : SUBNET_WORDS.freeOfNoBand;
  }
}

export const isOne = (part: Prefix): boolean => sizeOf(part) <= 256;
