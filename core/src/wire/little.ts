// Little-endian, as EtherNet/IP is throughout. Callers have checked the bounds with `need`.
import { u8 } from './codec';

export const le16 = (bytes: Uint8Array, at: number): number =>
  u8(bytes, at) | (u8(bytes, at + 1) << 8);

export const le32 = (bytes: Uint8Array, at: number): number =>
  (le16(bytes, at) | (le16(bytes, at + 2) << 16)) >>> 0;

export function putLe16(bytes: Uint8Array, at: number, value: number): number {
  bytes[at] = value;
  bytes[at + 1] = value >>> 8;
  return at + 2;
}

export function putLe32(bytes: Uint8Array, at: number, value: number): number {
  putLe16(bytes, at, value);
  return putLe16(bytes, at + 2, value >>> 16);
}
