import { toIpv4, toMac, type Ipv4, type MacAddress } from '../net';

/** Why bytes could not be read; the only exception a decoder may throw. */
export class DecodeError extends Error {
  override readonly name = 'DecodeError';
  constructor(
    /** What was expected, e.g. `dhcp.cookie`. */
    readonly code: string,
    /** Offset from the start of the buffer. */
    readonly at: number,
    /** Bytes needed from there, or the value that was expected. */
    readonly need: number,
    /** Bytes left, or the value that stood there. */
    readonly have: number,
  ) {
    super(`${code} at byte ${at}: need ${need}, have ${have}`);
  }
}

/**
 * One thing on the wire. Offsets count bytes from the start of the buffer and are returned, never
 * remembered. `encode` writes exactly `length(value)` bytes; `decode` reads nothing at or after `end`
 * and throws nothing but DecodeError.
 */
export interface Codec<T> {
  length(value: T): number;
  encode(value: T, bytes: Uint8Array, at: number): number;
  decode(bytes: Uint8Array, at: number, end: number): { readonly value: T; readonly next: number };
}

const BLOCK = 8192;
let block = new Uint8Array(BLOCK);
let used = 0;

/**
 * Zeroed bytes that nobody else has. Small ones are cut from a larger block, each place once: to make
 * a buffer of its own for every frame takes longer than to fill it. Who sends such bytes to another
 * thread sends a copy (`slice`), or the whole block goes with them.
 */
export function freshBytes(length: number): Uint8Array {
  if (length > BLOCK / 8) return new Uint8Array(length);
  if (used + length > BLOCK) {
    block = new Uint8Array(BLOCK);
    used = 0;
  }
  used += length;
  return block.subarray(used - length, used);
}

/** Encodes into new bytes of exactly the needed length. */
export function encodeWith<T>(codec: Codec<T>, value: T): Uint8Array {
  const bytes = freshBytes(codec.length(value));
  codec.encode(value, bytes, 0);
  return bytes;
}

/** Decodes a whole buffer; bytes after the value are left alone. */
export const decodeWith = <T>(codec: Codec<T>, bytes: Uint8Array): T =>
  codec.decode(bytes, 0, bytes.length).value;

/** Refuses to go on unless `count` bytes are left. */
export function need(code: string, at: number, end: number, count: number): void {
  if (end - at < count) throw new DecodeError(code, at, count, Math.max(0, end - at));
}

/** Refuses a value other than the one the format demands. */
export function expect(code: string, at: number, wanted: number, have: number): void {
  if (wanted !== have) throw new DecodeError(code, at, wanted, have);
}

// Big-endian reads and writes. Callers have checked the bounds with `need`.

export const u8 = (bytes: Uint8Array, at: number): number => bytes[at] ?? 0;

export const u16 = (bytes: Uint8Array, at: number): number =>
  (u8(bytes, at) << 8) | u8(bytes, at + 1);

export const u32 = (bytes: Uint8Array, at: number): number =>
  ((u16(bytes, at) << 16) | u16(bytes, at + 2)) >>> 0;

export function put16(bytes: Uint8Array, at: number, value: number): number {
  bytes[at] = value >>> 8;
  bytes[at + 1] = value;
  return at + 2;
}

export function put32(bytes: Uint8Array, at: number, value: number): number {
  put16(bytes, at, value >>> 16);
  return put16(bytes, at + 2, value);
}

export const readIpv4 = (bytes: Uint8Array, at: number): Ipv4 => toIpv4(u32(bytes, at));

export const readMac = (bytes: Uint8Array, at: number): MacAddress =>
  toMac(u16(bytes, at) * 2 ** 32 + u32(bytes, at + 2));

export function putMac(bytes: Uint8Array, at: number, mac: MacAddress): number {
  put16(bytes, at, Math.floor(mac / 2 ** 32));
  return put32(bytes, at + 2, mac % 2 ** 32);
}

/** Up to here a loop is quicker than the engine's own copying, and a copy than a view. */
const SHORT = 64;

/** The bytes from `at` to `end`: a few as a copy, more as a view of the same memory. */
export function cutBytes(bytes: Uint8Array, at: number, end: number): Uint8Array {
  const length = end - at;
  if (length > SHORT) return bytes.subarray(at, end);
  const cut = new Uint8Array(length);
  for (let i = 0; i < length; i += 1) cut[i] = bytes[at + i] ?? 0;
  return cut;
}

export function putBytes(bytes: Uint8Array, at: number, source: Uint8Array): number {
  const { length } = source;
  if (length <= SHORT) for (let i = 0; i < length; i += 1) bytes[at + i] = source[i] ?? 0;
  else bytes.set(source, at);
  return at + length;
}

/** Bytes as Latin-1 text: every byte is one character, so nothing is lost. */
export const toLatin1 = (bytes: Uint8Array): string => String.fromCharCode(...bytes);

export function fromLatin1(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i += 1) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/**
 * The one's complement sum of RFC 1071 §1 over `from`…`end`, not yet folded.
 * @param start a sum to go on from (a pseudo header, say)
 */
export function checksumAdd(bytes: Uint8Array, from: number, end: number, start = 0): number {
  let sum = start;
  let at = from;
  for (; at + 1 < end; at += 2) sum += u16(bytes, at);
  if (at < end) sum += u8(bytes, at) << 8;
  return sum;
}

/** Folds a sum to the 16-bit checksum that is written on the wire. */
export function checksumFold(sum: number): number {
  let folded = sum;
  while (folded > 0xffff) folded = (folded & 0xffff) + Math.floor(folded / 0x10000);
  return ~folded & 0xffff;
}
