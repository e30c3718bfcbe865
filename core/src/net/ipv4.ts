import { ok, refuse, type Result } from './result';

declare const ipv4Brand: unique symbol;

/** An IPv4 address as an unsigned 32-bit number in host order: 172.22.40.86 is 0xac162856. */
export type Ipv4 = number & { readonly [ipv4Brand]: true };

/** Any number, cut to its low 32 bits. */
export const toIpv4 = (value: number): Ipv4 => (value >>> 0) as Ipv4;

export const UNSPECIFIED = toIpv4(0);
export const LIMITED_BROADCAST = toIpv4(0xffffffff);

/**
 * R-IPV4: reads four decimal numbers between dots and nothing else.
 *
 * Leading zeros are refused because other network stacks read them as octal (RFC 6943 §3.1.1), and
 * short forms because they mean different addresses to different programs.
 *
 * @example parseIpv4('172.22.40.86') // ok, 0xac162856
 * @returns refusals `ipv4.empty`, `ipv4.space`, `ipv4.parts`, `ipv4.digits`, `ipv4.leadingZero`,
 * `ipv4.octet`; each names the part (`where`) and its place counted from 1 (`facts.part`).
 */
export function parseIpv4(text: string): Result<Ipv4> {
  // Good addresses are read digit by digit, by the thousand; only a bad one is looked at closely.
  let value = 0;
  let parts = 0;
  let part = -1;
  for (let at = 0; at <= text.length; at += 1) {
    const digit = at < text.length ? text.charCodeAt(at) - ZERO : DOT;
    if (digit === DOT) {
      if (part < 0) return refusalOf(text);
      value = value * 256 + part;
      parts += 1;
      part = -1;
      continue;
    }
    if (digit < 0 || digit > 9 || part === 0) return refusalOf(text);
    part = part < 0 ? digit : part * 10 + digit;
    if (part > 255) return refusalOf(text);
  }
  return parts === 4 ? ok(toIpv4(value)) : refusalOf(text);
}

const ZERO = 48;
const DOT = 46 - ZERO;

/** Why a text that was not read is no address. */
function refusalOf(text: string): Result<never> {
  if (text === '') return refuse('ipv4.empty', text);
  if (/\s/.test(text)) return refuse('ipv4.space', text);
  const parts = text.split('.');
  if (parts.length !== 4) return refuse('ipv4.parts', text, { have: parts.length });
  for (const [index, part] of parts.entries()) {
    const facts = { part: index + 1, text };
    if (!/^[0-9]+$/.test(part)) return refuse('ipv4.digits', part, facts);
    if (part.length > 1 && part.startsWith('0')) return refuse('ipv4.leadingZero', part, facts);
    if (part.length > 3 || Number(part) > 255) return refuse('ipv4.octet', part, facts);
  }
  throw new Error(`an address was not read: ${text}`);
}

/** @example formatIpv4(0xac162856) // '172.22.40.86' */
export const formatIpv4 = (address: Ipv4): string =>
  `${address >>> 24}.${(address >>> 16) & 255}.${(address >>> 8) & 255}.${address & 255}`;
