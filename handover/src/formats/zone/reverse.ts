import { formatIpv4, toIpv4, type Prefix } from '@ipsonomo/core/net';

// Where the names of addresses stand: zones under in-addr.arpa (RFC 1035 §3.5, RFC 2317).

export interface ReverseZone {
  /** Without the last dot. */
  readonly name: string;
  /** For less than a /24: what the zone above has to say for each of its addresses. */
  readonly above: string | undefined;
  /** The label of an address in it. */
  readonly label: (address: number) => string;
  readonly has: (address: number) => boolean;
}

const numbers = (address: number): readonly number[] =>
  formatIpv4(toIpv4(address)).split('.').map(Number);

/** @example arpa([172, 22, 40]) // '40.22.172.in-addr.arpa' */
const arpa = (parts: readonly number[]): string => `${[...parts].reverse().join('.')}.in-addr.arpa`;

/**
 * R-REVERSE: the zones of a subnet. A /8, /16 or /24 has one; what lies between is as many of the next size as it takes
 * (a /21 is eight of a /24); less than a /24 is a zone of its own below that of its /24, as RFC 2317 §4 names it.
 */
export function reverseZonesOf({ network, length }: Prefix): readonly ReverseZone[] {
  if (length > 24) {
    const [a = 0, b = 0, c = 0, d = 0] = numbers(network);
    const above = arpa([a, b, c]);
    return [zone(`${d}/${length}.${above}`, above, network, length, 3)];
  }
  const whole = length > 16 ? 24 : length > 8 ? 16 : 8;
  const step = 2 ** (32 - whole);
  return Array.from({ length: 2 ** (whole - length) }, (_, at) => {
    const first = network + at * step;
    const parts = numbers(first).slice(0, whole / 8);
    return zone(arpa(parts), undefined, first, whole, whole / 8);
  });
}

function zone(
  name: string,
  above: string | undefined,
  first: number,
  length: number,
  parts: number,
): ReverseZone {
  const last = first + 2 ** (32 - length) - 1;
  return {
    ...{ name, above },
    label: (address) => [...numbers(address).slice(parts)].reverse().join('.'),
    has: (address) => address >= first && address <= last,
  };
}
