import { expect, fromLatin1, need, put16, putBytes, toLatin1, u16, u8, type Codec } from './codec';

/**
 * Who a station is, as its maker wrote it: the record of identification and maintenance that every station has
 * (I&M0, IEC 61158-6-10; from memory, confirmed with tshark's dissector).
 */
export interface Identification {
  readonly vendor: number;
  /** Up to 20 characters. */
  readonly orderNumber: string;
  /** Up to 16 characters. */
  readonly serial: string;
  readonly hardware: number;
  /** A letter (V for what is sold), then three numbers. */
  readonly software: readonly [prefix: string, major: number, minor: number, patch: number];
}

const KIND = 0x0020;
const LENGTH = 60;
const ORDER = 20;
const SERIAL = 16;

const padded = (text: string, length: number): Uint8Array =>
  fromLatin1(text.slice(0, length).padEnd(length));

const textAt = (bytes: Uint8Array, at: number, length: number): string =>
  toLatin1(bytes.subarray(at, at + length)).replace(/[\0 ]+$/, '');

export const identification: Codec<Identification> = {
  length: () => LENGTH,
  encode({ vendor, orderNumber, serial, hardware, software }, bytes, at) {
    bytes.fill(0, at, at + LENGTH);
    put16(bytes, at, KIND);
    put16(bytes, at + 2, LENGTH - 4);
    bytes[at + 4] = 1;
    put16(bytes, at + 6, vendor);
    putBytes(bytes, at + 8, padded(orderNumber, ORDER));
    putBytes(bytes, at + 28, padded(serial, SERIAL));
    put16(bytes, at + 44, hardware);
    const [prefix, ...numbers] = software;
    bytes[at + 46] = prefix.charCodeAt(0);
    bytes.set(numbers, at + 47);
    // The version of this record's own form.
    bytes.set([1, 1], at + 56);
    return at + LENGTH;
  },
  decode(bytes, at, end) {
    need('record.identification', at, end, LENGTH);
    expect('record.identificationKind', at, KIND, u16(bytes, at));
    const [prefix] = textAt(bytes, at + 46, 1);
    const value = {
      vendor: u16(bytes, at + 6),
      orderNumber: textAt(bytes, at + 8, ORDER),
      serial: textAt(bytes, at + 28, SERIAL),
      hardware: u16(bytes, at + 44),
      software: [prefix ?? '', u8(bytes, at + 47), u8(bytes, at + 48), u8(bytes, at + 49)] as const,
    };
    return { value, next: at + LENGTH };
  },
};
