import {
  broadcastOf,
  containsAddress,
  firstHostOf,
  lastHostOf,
  overlaps,
  formatIpv4,
  formatPrefix,
  rangeHas,
  roleOf,
  sizeOf,
  specialBlocksOf,
  toIpv4,
  type AddressRange,
  type Ipv4,
  type Issue,
  type Prefix,
} from '../net';
import { addressesBySwitches } from '../switches';
import type { Kind } from './kind';
import {
  FIRST_SETTINGS,
  givenAddresses,
  type Band,
  type BandRow,
  type Freed,
  type Plan,
  type PlannedInterface,
  type Subnet,
} from './model';
import { findKind } from './shelf';
import type { Role, Way } from './words';

/**
 * The bands a new subnet begins with, from the template of the plan; none where it is smaller than a
 * /24. In a wider one they stand in its first 256 addresses.
 */
export function defaultBands(
  prefix: Prefix,
  template: readonly BandRow[] = FIRST_SETTINGS.bandTemplate,
): readonly Band[] {
  if (sizeOf(prefix) < 256) return [];
  return template.map(({ role, first, last }) => ({
    role,
    first: toIpv4(prefix.network + first),
    last: toIpv4(prefix.network + last),
  }));
}

/** Bands whose addresses are never proposed for a device. */
const RESERVED: readonly Role[] = ['infrastructure', 'pool', 'held', 'laptops'];

/** What must not be proposed, though nobody has it. */
export interface Avoided {
  /** Addresses already given, the freshly proposed ones included. */
  readonly taken: ReadonlySet<Ipv4>;
  /** Factory addresses of the kinds in the subnet: a fresh device would meet the one that has it. */
  readonly factory?: ReadonlySet<Ipv4>;
  /** Only these can be given at all: what a device's switches can make. */
  readonly only?: ReadonlySet<Ipv4>;
  /** Freed addresses that are still held, see `stillFreed`. */
  readonly freed?: ReadonlySet<Ipv4>;
}

/**
 * R-NEXT-FREE: the lowest free address for a device of this role: in the band of its role where the
 * subnet has one, else anywhere outside the bands of others. Never network, broadcast, gateway, pool,
 * held or freed address, the laptops' band or a factory address. A device whose switches cannot make one of them gets the
 * lowest that they can make: outside the bands of others where there is one, else in one that is not reserved.
 */
export function nextFree(subnet: Subnet, role: Role, avoided: Avoided): Ipv4 | undefined {
  const own = subnet.bands.filter((band) => band.role === role);
  const whole = { first: firstHostOf(subnet.prefix), last: lastHostOf(subnet.prefix) };
  const others = [...subnet.bands, ...subnet.held];
  const reserved = subnet.bands.filter((band) => RESERVED.includes(band.role));
  const places: readonly (readonly [range: AddressRange, closed: readonly AddressRange[]])[] = [
    ...own.map((band) => [band, subnet.held] as const),
    ...(own.length === 0 || avoided.only ? [[whole, others] as const] : []),
    ...(avoided.only ? [[whole, [...reserved, ...subnet.held]] as const] : []),
  ];
  for (const [range, closed] of places) {
    const free = firstFree(subnet, range, closed, avoided);
    if (free !== undefined) return free;
  }
  return undefined;
}

function firstFree(
  subnet: Subnet,
  range: AddressRange,
  closed: readonly AddressRange[],
  { taken, factory, only, freed }: Avoided,
): Ipv4 | undefined {
  for (let value: number = range.first; value <= range.last; value += 1) {
    const address = toIpv4(value);
    const inside = closed.find((band) => rangeHas(band, address));
    if (inside) {
      value = inside.last;
      continue;
    }
    if (taken.has(address) || address === subnet.gateway) continue;
    if (factory?.has(address) || freed?.has(address) || (only && !only.has(address))) continue;
    if (roleOf(subnet.prefix, address) === 'host') return address;
  }
  return undefined;
}

const DAYS_HELD = 30;

/**
 * R-FREED: the addresses of a subnet that were freed and are held still: until the next named
 * revision or 30 days, whichever is later.
 * @param lastNamed the number of the last revision that has a name, 0 for none
 */
const stillFreed = (
  plan: Plan,
  subnetId: string,
  now: number,
  lastNamed: number,
): ReadonlySet<Ipv4> =>
  new Set(
    plan.freed
      .filter((one) => one.subnetId === subnetId && isStillHeld(one, now, lastNamed))
      .map(({ address }) => address),
  );

export const isStillHeld = ({ at, revision }: Freed, now: number, lastNamed: number): boolean =>
  now - at < DAYS_HELD * 86_400_000 || lastNamed <= revision;

/** The factory addresses of the kinds that are planned in a subnet. */
function factoryAddressesIn(plan: Plan, subnetId: string): ReadonlySet<Ipv4> {
  const addresses = new Set<Ipv4>();
  for (const { kindId, interfaces } of plan.devices) {
    if (!interfaces.some((one) => one.subnetId === subnetId)) continue;
    const factory = findKind(plan, kindId)?.factory;
    if (factory?.kind === 'fixed') addresses.add(factory.address);
  }
  return addresses;
}

/** Whom an address is looked for, and when. */
interface Seeker {
  readonly kind: Kind | undefined;
  readonly way: Way;
  readonly now: number;
  /** The last revision that has a name: what was freed before it is not held any more. */
  readonly lastNamed?: number;
}

/** Everything to avoid when such a device is given an address in this subnet. */
export function avoidedFor(
  plan: Plan,
  subnet: Subnet,
  { kind, way, now, lastNamed = 0 }: Seeker,
): Avoided & { readonly taken: Set<Ipv4> } {
  const factory = new Set(factoryAddressesIn(plan, subnet.id));
  if (kind?.factory.kind === 'fixed') factory.add(kind.factory.address);
  return {
    taken: new Set(givenAddresses(plan, subnet.id)),
    factory,
    freed: stillFreed(plan, subnet.id, now, lastNamed),
    ...(way === 'switches' && kind?.switches
      ? { only: addressesBySwitches(kind.switches, subnet.prefix) }
      : {}),
  };
}

/** An address Ipsonomo itself may speak from: the highest free one of the laptops' band. */
export function voiceAddress(subnet: Subnet, taken: ReadonlySet<Ipv4>): Ipv4 | undefined {
  const bands = subnet.bands.filter((band) => band.role === 'laptops');
  const ranges: readonly AddressRange[] =
    bands.length > 0
      ? bands
      : [{ first: firstHostOf(subnet.prefix), last: lastHostOf(subnet.prefix) }];
  for (const range of ranges)
    for (let value: number = range.last; value >= range.first; value -= 1) {
      const address = toIpv4(value);
      if (address !== subnet.gateway && !taken.has(address)) return address;
    }
  return undefined;
}

/** Who has an address in the realm, apart from one interface (the one being edited). */
function holderOf(
  plan: Plan,
  realmId: string,
  address: Ipv4,
  except?: string,
): PlannedInterface | undefined {
  const realms = new Map(plan.subnets.map((subnet) => [subnet.id, subnet.realmId]));
  for (const device of plan.devices)
    for (const at of device.interfaces)
      if (
        (at.address === address || at.loan?.address === address) &&
        at.id !== except &&
        realms.get(at.subnetId) === realmId
      )
        return { device, at };
  return undefined;
}

/**
 * R-ADDRESS: everything that speaks against giving this address in this subnet. `address.*` codes carry the
 * subnet, the holder or the band as facts; an empty list is a good address.
 * @param except the interface that is being edited, not counted as holder
 */
export function checkAddress(
  plan: Plan,
  subnet: Subnet,
  address: Ipv4,
  except?: string,
): readonly Issue[] {
  const where = formatIpv4(address);
  const facts = { subnet: subnet.name, network: formatPrefix(subnet.prefix) };
  const special = specialBlocksOf(address).find((block) => block.use === 'never');
  if (special) return [{ code: 'address.never', where, facts: { block: special.name } }];
  const role = roleOf(subnet.prefix, address);
  if (role !== 'host') return [{ code: `address.${role}`, where, facts }];
  const issues: Issue[] = [];
  if (address === subnet.gateway) issues.push({ code: 'address.gateway', where, facts });
  const holder = holderOf(plan, subnet.realmId, address, except);
  if (holder) issues.push({ code: 'address.taken', where, facts: { holder: holder.device.title } });
  const band = subnet.bands.find(
    (one) => RESERVED.includes(one.role) && one.role !== 'infrastructure' && rangeHas(one, address),
  );
  if (band) issues.push({ code: 'address.band', where, facts: { ...facts, band: band.role } });
  const held = subnet.held.find((one) => rangeHas(one, address));
  if (held) issues.push({ code: 'address.held', where, facts: { ...facts, note: held.note } });
  return issues;
}

/** Everything that speaks against adding this subnet to the plan. */
export function checkSubnet(
  plan: Plan,
  wanted: Pick<Subnet, 'prefix' | 'gateway' | 'realmId'>,
): readonly Issue[] {
  const where = formatPrefix(wanted.prefix);
  const issues: Issue[] = [];
  const special = specialBlocksOf(wanted.prefix.network).find((block) => block.use === 'never');
  if (special) issues.push({ code: 'subnet.never', where, facts: { block: special.name } });
  if (wanted.prefix.length < 8) issues.push({ code: 'subnet.tooWide', where });
  const other = plan.subnets.find(
    (subnet) => subnet.realmId === wanted.realmId && overlaps(subnet.prefix, wanted.prefix),
  );
  if (other)
    issues.push({
      code: 'subnet.overlap',
      where,
      facts: { other: other.name, network: formatPrefix(other.prefix) },
    });
  const { gateway, prefix } = wanted;
  if (gateway !== undefined && !containsAddress(prefix, gateway))
    issues.push({
      code: 'gateway.outside',
      where: formatIpv4(gateway),
      facts: { network: where },
    });
  else if (gateway !== undefined && roleOf(prefix, gateway) !== 'host')
    issues.push({
      code: gateway === broadcastOf(prefix) ? 'gateway.broadcast' : 'gateway.network',
      where: formatIpv4(gateway),
      facts: { network: where },
    });
  return issues;
}
