import { formatIpv4, formatMac, containsAddress } from '@ipsonomo/core/net';
import {
  dhcpNameOf,
  findSubnet,
  isAsking,
  type PlannedInterface,
  type Subnet,
} from '@ipsonomo/core/plan';
import type { LeftOut } from '@ipsonomo/core/api';
import { leftOut, type Material } from '../format';

// What a DHCP server of the plant has to give, whichever it is: the files of all three are made of this.

/** By what a device is known to whoever answers it. */
export type Key =
  | { readonly kind: 'mac'; readonly mac: string }
  /** Option 12, or the same in option 61. */
  | { readonly kind: 'name'; readonly name: string }
  /** Option 82 (RFC 3046), in hex; an empty side stands for any. */
  | { readonly kind: 'port'; readonly circuit: string; readonly remote: string };

/** How long an address is lent before it has to be asked for again, in seconds. */
export const LEASE_SECONDS = 12 * 3600;

/**
 * Where the key is a name or a port, a spare has another MAC, and gets the address only when what the old one was lent
 * has ended: that is soon. Two minutes are the least that dnsmasq lends.
 */
export const KEYED_SECONDS = 120;

export interface Reservation extends PlannedInterface {
  readonly key: Key;
}

export interface SubnetReservations {
  readonly subnet: Subnet;
  readonly reservations: readonly Reservation[];
}

export interface Reservations {
  readonly subnets: readonly SubnetReservations[];
  readonly left: readonly LeftOut[];
}

const keyText = (key: Key): string =>
  key.kind === 'mac'
    ? key.mac
    : key.kind === 'name'
      ? key.name.toLowerCase()
      : `${key.circuit}|${key.remote}`;

/**
 * R-RESERVATIONS: every chosen interface that asks for its address is either reserved or listed with why not. Servers
 * take the same address or the same key twice, and addresses outside their subnet, without a word: such ones are listed.
 * Names that differ in capitals alone are one key, as servers compare them.
 */
export function reservationsOf(material: Material): Reservations {
  const asking = material.chosen.filter(({ device }) => isAsking(device.way));
  const left: LeftOut[] = [];
  const keyed = asking.flatMap((one): readonly (Reservation & { readonly subnet: Subnet })[] => {
    const subnet = findSubnet(material.plan, one.at.subnetId);
    if (!subnet || !containsAddress(subnet.prefix, one.at.address))
      return miss(left, leftOut(one, 'outside'));
    const key = keyOf(one);
    if (typeof key === 'string') return miss(left, leftOut(one, key));
    return [{ ...one, key, subnet }];
  });
  const addresses = countOf(keyed, (one) => `${one.subnet.realmId} ${one.at.address}`);
  const keys = countOf(keyed, (one) => `${one.subnet.id} ${one.key.kind} ${keyText(one.key)}`);
  const good = keyed.filter((one) => {
    const isTwice = addresses(one) > 1;
    if (isTwice) left.push(leftOut(one, 'same-address', formatIpv4(one.at.address)));
    else if (keys(one) > 1) left.push(leftOut(one, 'same-key', keyText(one.key)));
    else return true;
    return false;
  });
  const subnets = material.plan.subnets
    .filter(({ id }) => material.chosen.some(({ at }) => at.subnetId === id))
    .map((subnet) => ({ subnet, reservations: good.filter((one) => one.subnet === subnet) }));
  return { subnets, left };
}

function keyOf({ device, at }: PlannedInterface): Key | 'no-mac' | 'no-port' | 'no-name' {
  if (device.way === 'dhcp-name') {
    const name = dhcpNameOf(device);
    return name === '' ? 'no-name' : { kind: 'name', name };
  }
  if (device.way === 'dhcp-port') {
    const { circuit = '', remote = '' } = at.port ?? {};
    return circuit === '' && remote === '' ? 'no-port' : { kind: 'port', circuit, remote };
  }
  return at.mac === undefined ? 'no-mac' : { kind: 'mac', mac: formatMac(at.mac) };
}

function miss(left: LeftOut[], one: LeftOut): readonly never[] {
  left.push(one);
  return [];
}

/** How many have the same, by a text of each. */
export function countOf<T>(all: readonly T[], textOf: (one: T) => string): (one: T) => number {
  const counts = new Map<string, number>();
  for (const one of all) counts.set(textOf(one), (counts.get(textOf(one)) ?? 0) + 1);
  return (one) => counts.get(textOf(one)) ?? 0;
}
