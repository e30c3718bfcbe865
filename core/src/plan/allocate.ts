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
import { KINDS } from './kinds';
import { interfacesOf, type Band, type Plan, type Role, type Subnet } from './model';

type BandRow = readonly [role: Role, first: number, last: number];

/** Last numbers by role in a /24 (common practice, no source). */
const BAND_TEMPLATE: readonly BandRow[] = [
  ['infrastructure', 1, 9],
  ['controllers', 10, 19],
  ['gateways', 50, 59],
  ['panels', 60, 69],
  ['drives', 80, 99],
  ['io', 100, 149],
  ['sensors', 150, 179],
  ['held', 180, 189],
  ['pool', 200, 239],
  ['laptops', 245, 253],
];

/** The bands a new subnet begins with; none where it is smaller than a /24. */
export function defaultBands(prefix: Prefix): readonly Band[] {
  if (sizeOf(prefix) < 256) return [];
  return BAND_TEMPLATE.map(([role, first, last]) => ({
    role,
    first: toIpv4(prefix.network + first),
    last: toIpv4(prefix.network + last),
  }));
}

/** Bands whose addresses are never proposed for a device. */
const RESERVED: readonly Role[] = ['infrastructure', 'pool', 'held', 'laptops'];

const factoryAddresses: ReadonlySet<Ipv4> = new Set(
  KINDS.flatMap(({ factory }) => (factory.kind === 'fixed' ? [factory.address] : [])),
);

/**
 * R-NEXT-FREE: the lowest free address for a device of this role: in the band of its role where the subnet has
 * one, else anywhere outside the bands of others. Never network, broadcast, gateway, pool, held
 * range, the laptops' band or a factory address.
 * @param taken addresses already given, the freshly proposed ones included
 */
export function nextFree(subnet: Subnet, role: Role, taken: ReadonlySet<Ipv4>): Ipv4 | undefined {
  const own = subnet.bands.filter((band) => band.role === role);
  const whole = { first: firstHostOf(subnet.prefix), last: lastHostOf(subnet.prefix) };
  const closed = subnet.bands.filter((band) => band.role !== role);
  if (own.length === 0) return firstFree(subnet, whole, taken, closed);
  for (const band of own) {
    const free = firstFree(subnet, band, taken, []);
    if (free !== undefined) return free;
  }
  return undefined;
}

function firstFree(
  subnet: Subnet,
  range: AddressRange,
  taken: ReadonlySet<Ipv4>,
  closed: readonly Band[],
): Ipv4 | undefined {
  for (let value: number = range.first; value <= range.last; value += 1) {
    const address = toIpv4(value);
    const inside = closed.find((band) => rangeHas(band, address));
    if (inside) {
      value = inside.last;
      continue;
    }
    if (taken.has(address) || address === subnet.gateway || factoryAddresses.has(address)) continue;
    if (roleOf(subnet.prefix, address) === 'host') return address;
  }
  return undefined;
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

/** Who has an address in the plan, apart from one interface (the one being edited). */
export const holderOf = (plan: Plan, address: Ipv4, except?: string) =>
  interfacesOf(plan).find(({ at }) => at.address === address && at.id !== except);

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
  const holder = holderOf(plan, address, except);
  if (holder) issues.push({ code: 'address.taken', where, facts: { holder: holder.device.title } });
  const band = subnet.bands.find(
    (one) => RESERVED.includes(one.role) && one.role !== 'infrastructure' && rangeHas(one, address),
  );
  if (band) issues.push({ code: 'address.band', where, facts: { ...facts, band: band.role } });
  return issues;
}

/** Everything that speaks against adding this subnet to the plan. */
export function checkSubnet(
  plan: Plan,
  wanted: Pick<Subnet, 'prefix' | 'gateway'>,
): readonly Issue[] {
  const where = formatPrefix(wanted.prefix);
  const issues: Issue[] = [];
  const special = specialBlocksOf(wanted.prefix.network).find((block) => block.use === 'never');
  if (special) issues.push({ code: 'subnet.never', where, facts: { block: special.name } });
  if (wanted.prefix.length < 8) issues.push({ code: 'subnet.tooWide', where });
  const other = plan.subnets.find((subnet) => overlaps(subnet.prefix, wanted.prefix));
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
