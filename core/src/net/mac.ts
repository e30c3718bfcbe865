import { ok, refuse, type Result } from './result';

declare const macBrand: unique symbol;

/** A 48-bit MAC address as a number; 02:00:5e:00:53:01 is 0x02005e005301. */
export type MacAddress = number & { readonly [macBrand]: true };

/** A whole number below 2^48 as MAC address. */
export function toMac(value: number): MacAddress {
  if (!Number.isInteger(value) || value < 0 || value >= 2 ** 48) throw new RangeError(`${value}`);
  return value as MacAddress;
}

export const BROADCAST_MAC = toMac(2 ** 48 - 1);
export const ZERO_MAC = toMac(0);

const notations = [
  /^[0-9a-f]{2}(:[0-9a-f]{2}){5}$/i, // 02:00:5e:00:53:01
  /^[0-9a-f]{2}(-[0-9a-f]{2}){5}$/i, // 02-00-5E-00-53-01, IEEE 802
  /^[0-9a-f]{2}( [0-9a-f]{2}){5}$/i, // 02 00 5E 00 53 01
  /^[0-9a-f]{4}(\.[0-9a-f]{4}){2}$/i, // 0200.5e00.5301
  /^[0-9a-f]{12}$/i, // 02005e005301
];

/**
 * Reads a MAC in one of the notations printed on labels; separators must be of one kind.
 * @returns refusals `mac.length` (hex only but not 12 digits) and `mac.notation`.
 */
export function parseMac(text: string): Result<MacAddress> {
  if (notations.some((notation) => notation.test(text)))
    return ok(toMac(parseInt(text.replace(/[^0-9a-f]/gi, ''), 16)));
  const digits = text.replace(/[\s:.-]/g, '');
  if (!/^[0-9a-f]*$/i.test(digits)) return refuse('mac.notation', text);
  if (digits.length !== 12) return refuse('mac.length', text, { have: digits.length });
  return refuse('mac.notation', text);
}

/** The twelve hex digits, upper case, without separators. */
export const macDigits = (mac: MacAddress): string =>
  mac.toString(16).toUpperCase().padStart(12, '0');

/** @example formatMac(0x02005e005301) // '02:00:5e:00:53:01' */
export const formatMac = (mac: MacAddress): string =>
  mac
    .toString(16)
    .padStart(12, '0')
    .replace(/(..)(?!$)/g, '$1:');

/** The group bit (IEEE 802): broadcast and multicast addresses are never a device's own. */
export const isGroupMac = (mac: MacAddress): boolean => Math.floor(mac / 2 ** 40) % 2 === 1;

/** R-MAC: may a device have this MAC? Neither a group address nor all zeros. */
export const isDeviceMac = (mac: MacAddress): boolean => mac !== 0 && !isGroupMac(mac);
