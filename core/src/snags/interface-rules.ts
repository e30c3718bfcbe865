import {
  containsAddress,
  formatIpv4,
  formatMac,
  formatPrefix,
  isDeviceMac,
  lengthOfMask,
  maskOf,
  rangeHas,
  roleOf,
  specialBlocksOf,
  type Ipv4,
} from '../net';
import type { Interface, Subnet } from '../plan';
import { addressesBySwitches, setForAddress, type SwitchFace } from '../switches';
import type { DeviceScope } from './scope';
import { findSlip } from './slip';
import { joined, snag, type Snag } from './snag';

/** Everything about one interface and its address. */
export function interfaceSnags(scope: DeviceScope, at: Interface): readonly Snag[] {
  const place = { type: 'interface', id: at.id } as const;
  const subnet = scope.subnet(at.subnetId);
  if (!subnet)
    return [
      ...macSnags(scope, at),
      snag(
        'S-SUBNET-GONE',
        { ...place, field: 'subnetId' },
        { device: scope.device.title, address: formatIpv4(at.address) },
      ),
    ];
  let snags = macSnags(scope, at);
  for (const rule of RULES) snags = joined(snags, rule(scope, at, subnet));
  return snags;
}

function macSnags({ device }: DeviceScope, { id, mac, address }: Interface): readonly Snag[] {
  if (mac === undefined || isDeviceMac(mac)) return [];
  const facts = { device: device.title, address: formatIpv4(address), mac: formatMac(mac) };
  return [snag('S-MAC-GROUP', { type: 'interface', id, field: 'mac' }, facts)];
}

type Facts = () => Readonly<Record<'device' | 'address' | 'subnet' | 'network', string>>;

function addressSnags(scope: DeviceScope, at: Interface, subnet: Subnet): readonly Snag[] {
  const { address } = at;
  const place = { type: 'interface', id: at.id, field: 'address' } as const;
  // Put into words only where there is a snag: thousands of interfaces have none.
  const facts = () => ({
    device: scope.device.title,
    address: formatIpv4(address),
    subnet: subnet.name,
    network: formatPrefix(subnet.prefix),
  });
  const never = specialBlocksOf(address).find((block) => block.use === 'never');
  if (never) return [snag('S-ADDRESS-NEVER', place, { ...facts(), block: never.name })];
  const role = roleOf(subnet.prefix, address);
  if (role === 'outside') return [outside(scope, at, subnet, facts)];
  if (role === 'network') return [snag('S-ADDRESS-NETWORK', place, facts())];
  if (role === 'broadcast') return [snag('S-ADDRESS-BROADCAST', place, facts())];
  const snags: Snag[] = [];
  if (address === subnet.gateway && !scope.kind?.forwards)
    snags.push(snag('S-GATEWAY-DEVICE', place, facts()));
  if (subnet.dhcpServers.includes(address) && scope.kind?.role !== 'infrastructure')
    snags.push(snag('S-SERVER-DEVICE', place, facts()));
  const held = subnet.held.find((range) => rangeHas(range, address));
  if (held) snags.push(snag('S-ADDRESS-HELD', place, { ...facts(), note: held.note }));
  snags.push(...bandSnags(scope, at, subnet, facts));
  const last = address & 255;
  if ((last === 0 || last === 255) && scope.kind?.refusesEdgeNumbers)
    snags.push(snag('S-ADDRESS-EDGE', place, { ...facts(), last }));
  return snags;
}

/** An address outside: a slip of the fingers where a planned network is near. */
function outside(scope: DeviceScope, at: Interface, subnet: Subnet, facts: Facts): Snag {
  const place = { type: 'interface', id: at.id, field: 'address' } as const;
  const slip = findSlip(at.address, [subnet]);
  if (!slip) return snag('S-ADDRESS-OUTSIDE', place, facts());
  return snag('S-ADDRESS-SLIP', place, {
    ...facts(),
    meant: formatIpv4(slip.meant),
    how: slip.how,
  });
}

function bandSnags(
  { device, kind }: DeviceScope,
  at: Interface,
  subnet: Subnet,
  facts: Facts,
): readonly Snag[] {
  const band = subnet.bands.find((one) => rangeHas(one, at.address));
  if (!band || !kind) return [];
  const place = { type: 'interface', id: at.id, field: 'address' } as const;
  const about = () => ({ ...facts(), band: band.role });
  if (band.role === 'pool')
    return device.way === 'dhcp-mac' ? [] : [snag('S-ADDRESS-POOL', place, about())];
  if (band.role === 'held')
    return [snag('S-ADDRESS-HELD', place, { ...facts(), note: 'the band of held addresses' })];
  if (band.role === 'laptops') return [snag('S-ADDRESS-LAPTOPS', place, about())];
  if (band.role === kind.role || kind.forwards) return [];
  return [snag('S-ADDRESS-BAND', place, { ...about(), role: kind.role })];
}

/** An address that is lent has to be one its subnet can carry, and one that is kept for nobody else. */
function loanSnags({ device }: DeviceScope, at: Interface, subnet: Subnet): readonly Snag[] {
  if (!at.loan) return [];
  const { address } = at.loan;
  const place = { type: 'interface', id: at.id, field: 'loan' } as const;
  const facts = () => ({ device: device.title, lent: formatIpv4(address), subnet: subnet.name });
  if (roleOf(subnet.prefix, address) !== 'host')
    return [snag('S-LOAN-OUTSIDE', place, { ...facts(), network: formatPrefix(subnet.prefix) })];
  const whose = keptFor(subnet, address);
  return whose === undefined ? [] : [snag('S-LOAN-KEPT', place, { ...facts(), whose })];
}

/** For whom an address is kept in its subnet: nobody may have it even for an hour. */
function keptFor(subnet: Subnet, address: Ipv4): string | undefined {
  if (address === subnet.gateway) return 'gateway';
  if (subnet.dhcpServers.includes(address)) return 'server';
  const isHeld = subnet.held.some((range) => rangeHas(range, address));
  const band = subnet.bands.find((one) => rangeHas(one, address))?.role;
  if (isHeld || band === 'held') return 'held';
  return band === 'pool' ? 'pool' : undefined;
}

function maskSnags({ device }: DeviceScope, at: Interface, subnet: Subnet): readonly Snag[] {
  if (at.mask === undefined) return [];
  const place = { type: 'interface', id: at.id, field: 'mask' } as const;
  const wanted = maskOf(subnet.prefix.length);
  const facts = { device: device.title, mask: formatIpv4(at.mask), wanted: formatIpv4(wanted) };
  const length = lengthOfMask(at.mask);
  if (length === undefined) return [snag('S-MASK-GAP', place, facts)];
  if (length === subnet.prefix.length) return [];
  const effect = length < subnet.prefix.length ? 'wide' : 'narrow';
  return [snag('S-MASK-OTHER', place, { ...facts, effect })];
}

function ownGatewaySnags({ device, kind }: DeviceScope, at: Interface, subnet: Subnet) {
  if (typeof at.gateway === 'string') return [];
  const place = { type: 'interface', id: at.id, field: 'gateway' } as const;
  const facts = {
    device: device.title,
    gateway: formatIpv4(at.gateway),
    network: formatPrefix(subnet.prefix),
  };
  const own = at.gateway === at.address && !kind?.forwards;
  const role = roleOf(subnet.prefix, at.gateway);
  if (role === 'host' && !own) return [];
  return [snag('S-OWN-GATEWAY', place, { ...facts, why: own ? 'self' : role })];
}

/** A device whose address its switches must make. */
function switchSnags(
  { device, kind }: DeviceScope,
  at: Interface,
  subnet: Subnet,
): readonly Snag[] {
  const face = kind?.switches;
  if (device.way !== 'switches' || !face || !containsAddress(subnet.prefix, at.address)) return [];
  if (addressesBySwitches(face, subnet.prefix).has(at.address)) return [];
  const set = setForAddress(face, at.address, subnet.prefix);
  if (set.ok) return [];
  const place = { type: 'interface', id: at.id, field: 'address' } as const;
  const facts = {
    device: device.title,
    kind: kind.name,
    address: formatIpv4(at.address),
    last: at.address & 255,
  };
  if (set.error.code === 'switches.base')
    return [snag('S-SWITCH-BASE', place, { ...facts, base: String(set.error.facts?.['base']) })];
  const act = codeOf(face, at.address & 255);
  if (act) return [snag('S-SWITCH-CODE', place, { ...facts, act })];
  return [snag('S-SWITCH-NEVER', place, facts)];
}

/** What a last number means on switches where it is no address; undefined where it means nothing. */
function codeOf(face: SwitchFace, value: number): string | undefined {
  const found = face.meanings.find((one) => value >= one.from && value <= one.to);
  if (!found || found.act.kind === 'last-number' || found.act.kind === 'host-part')
    return undefined;
  return found.act.kind;
}

const RULES = [addressSnags, loanSnags, maskSnags, ownGatewaySnags, switchSnags] as const;
