import { formatIpv4, parseIpv4, toIpv4, type Ipv4 } from './ipv4';
import { ok, refuse, type Result } from './result';

declare const lengthBrand: unique symbol;

/** The number of leading one bits of a mask, 0 to 32 (RFC 4632 §3.1). */
export type PrefixLength = number & { readonly [lengthBrand]: true };

/** A CIDR block. `network` always has its host bits clear. */
export interface Prefix {
  readonly network: Ipv4;
  readonly length: PrefixLength;
}

/** 0 to 32 as a prefix length; anything else is a programmer's error. */
export function toPrefixLength(value: number): PrefixLength {
  if (!Number.isInteger(value) || value < 0 || value > 32) throw new RangeError(`/${value}`);
  return value as PrefixLength;
}

/**
 * Reads `24` (without the slash). `08`, `+8`, `33` and `` are refused.
 * @returns refusals `prefix.digits`, `prefix.leadingZero`, `prefix.range`.
 */
export function parsePrefixLength(text: string): Result<PrefixLength> {
  if (!/^[0-9]+$/.test(text)) return refuse('prefix.digits', text);
  if (text.length > 1 && text.startsWith('0')) return refuse('prefix.leadingZero', text);
  if (text.length > 2 || Number(text) > 32) return refuse('prefix.range', text);
  return ok(toPrefixLength(Number(text)));
}

/** @example formatIpv4(maskOf(toPrefixLength(20))) // '255.255.240.0' */
export const maskOf = (length: PrefixLength): Ipv4 =>
  toIpv4(length === 0 ? 0 : 0xffffffff << (32 - length));

/**
 * A dotted mask as prefix length (RFC 950, contiguous only as RFC 4632 §5.1 demands).
 * @returns the refusals of an address, and `mask.gap` for a mask whose ones are not contiguous.
 */
export function parseMask(text: string): Result<PrefixLength> {
  const mask = parseIpv4(text);
  if (!mask.ok) return mask;
  const length = lengthOfMask(mask.value);
  return length === undefined ? refuse('mask.gap', text) : ok(length);
}

/** The length of a contiguous mask, undefined where its ones have a gap. */
export function lengthOfMask(mask: Ipv4): PrefixLength | undefined {
  const inverted = ~mask >>> 0;
  if ((inverted & (inverted + 1)) !== 0) return undefined;
  return toPrefixLength(Math.clz32(inverted));
}

/** The block of this length in which the address lies. */
export const prefixOf = (address: Ipv4, length: PrefixLength): Prefix => ({
  network: toIpv4(address & maskOf(length)),
  length,
});

/**
 * R-PREFIX: reads `172.22.40.0/24`. Host bits must be clear: `172.22.40.9/24` is refused and the refusal names
 * the network it lies in.
 * @returns refusals of address and length, `prefix.slash` and `prefix.hostBits`.
 */
export function parsePrefix(text: string): Result<Prefix> {
  const slash = text.indexOf('/');
  if (slash < 0) return refuse('prefix.slash', text);
  const address = parseIpv4(text.slice(0, slash));
  if (!address.ok) return address;
  const length = parsePrefixLength(text.slice(slash + 1));
  if (!length.ok) return length;
  const prefix = prefixOf(address.value, length.value);
  if (prefix.network !== address.value)
    return refuse('prefix.hostBits', text, { network: formatPrefix(prefix) });
  return ok(prefix);
}

/**
 * A mask as people write it: `255.255.255.0`, `/24` or `24`.
 * @returns the mask; the refusals of `parseMask` and of `parsePrefixLength`
 */
export function readMask(text: string): Result<Ipv4> {
  const typed = text.trim();
  const length = typed.includes('.') ? parseMask(typed) : parsePrefixLength(typed.replace('/', ''));
  return length.ok ? ok(maskOf(length.value)) : length;
}

/** Two words between which a slash, spaces, or the word "mask" stand. */
const NETWORK_AND_MASK = /^(\S+?)(?:\s*\/\s*|\s+(?:mask\s+)?)(\S+)$/i;

/**
 * A network as people write it: `172.22.40.0/24`, `172.22.40.0 255.255.255.0`, `172.22.40.0 / 255.255.255.0`,
 * `172.22.40.0 mask 255.255.255.0`. Read with `parsePrefix` where a length follows.
 * @returns the refusals of `parsePrefix` and of `parseMask`
 */
export function readNetwork(text: string): Result<Prefix> {
  const typed = text.trim();
  const [, network = '', mask = ''] = NETWORK_AND_MASK.exec(typed) ?? [];
  if (!mask.includes('.')) return parsePrefix(mask === '' ? typed : `${network}/${mask}`);
  const length = parseMask(mask);
  return length.ok ? parsePrefix(`${network}/${length.value}`) : length;
}

export const formatPrefix = (prefix: Prefix): string =>
  `${formatIpv4(prefix.network)}/${prefix.length}`;

/** How many addresses the block has, 1 to 2^32. */
export const sizeOf = (prefix: Prefix): number => 2 ** (32 - prefix.length);

/** The last address of the block. */
export const lastOf = (prefix: Prefix): Ipv4 => toIpv4(prefix.network + sizeOf(prefix) - 1);

/** The directed broadcast address; a /31 (RFC 3021 §2.1) and a /32 have none. */
export const broadcastOf = (prefix: Prefix): Ipv4 | undefined =>
  prefix.length >= 31 ? undefined : lastOf(prefix);

/** First address a host may have: in a /31 both addresses are hosts (RFC 3021), in a /32 its one. */
export const firstHostOf = (prefix: Prefix): Ipv4 =>
  prefix.length >= 31 ? prefix.network : toIpv4(prefix.network + 1);

/** Last address a host may have. */
export const lastHostOf = (prefix: Prefix): Ipv4 =>
  prefix.length >= 31 ? lastOf(prefix) : toIpv4(lastOf(prefix) - 1);

/** How many hosts fit: 254 in a /24, 2 in a /31, 1 in a /32. */
export const hostCountOf = (prefix: Prefix): number =>
  prefix.length >= 31 ? sizeOf(prefix) : sizeOf(prefix) - 2;

/** Does the address lie in the block, network and broadcast address included? */
export const containsAddress = (prefix: Prefix, address: Ipv4): boolean =>
  ((address ^ prefix.network) & maskOf(prefix.length)) === 0;

export const isSamePrefix = (a: Prefix, b: Prefix): boolean =>
  a.network === b.network && a.length === b.length;

/** Does the whole of `inner` lie in `outer`? Equal blocks contain each other. */
export const containsPrefix = (outer: Prefix, inner: Prefix): boolean =>
  inner.length >= outer.length && containsAddress(outer, inner.network);

/** Do the blocks share an address? Two CIDR blocks are nested or disjoint. */
export const overlaps = (a: Prefix, b: Prefix): boolean =>
  containsPrefix(a, b) || containsPrefix(b, a);

/** What an address is within a subnet, seen by someone who wants to give it to a device. */
type AddressRole = 'host' | 'network' | 'broadcast' | 'outside';

/** @example roleOf(172.22.40.0/24, 172.22.40.255) // 'broadcast' */
export function roleOf(prefix: Prefix, address: Ipv4): AddressRole {
  if (!containsAddress(prefix, address)) return 'outside';
  if (prefix.length >= 31) return 'host';
  if (address === prefix.network) return 'network';
  return address === lastOf(prefix) ? 'broadcast' : 'host';
}
