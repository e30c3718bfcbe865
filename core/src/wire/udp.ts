import type { Ipv4 } from '../net';
import {
  checksumAdd,
  checksumFold,
  DecodeError,
  need,
  put16,
  putBytes,
  u16,
  type Codec,
} from './codec';
import { PROTOCOL, pseudoHeaderSum, transportChecksumFits } from './ipv4-packet';

/** A UDP datagram (RFC 768). */
export interface UdpDatagram {
  readonly fromPort: number;
  readonly toPort: number;
  readonly payload: Uint8Array;
}

/** The two ends of a datagram. */
export interface UdpEnds {
  readonly from: Ipv4;
  readonly fromPort: number;
  readonly to: Ipv4;
  readonly toPort: number;
}

/** Writes the header before a payload that stands in its place already: the checksum covers both. */
export function putUdpHeader(
  bytes: Uint8Array,
  at: number,
  { from, fromPort, to, toPort }: UdpEnds,
  payloadLength: number,
): void {
  const length = 8 + payloadLength;
  put16(bytes, at, fromPort);
  put16(bytes, at + 2, toPort);
  put16(bytes, at + 4, length);
  put16(bytes, at + 6, 0);
  const pseudo = pseudoHeaderSum(from, to, PROTOCOL.udp, length);
  const sum = checksumFold(checksumAdd(bytes, at, at + length, pseudo));
  put16(bytes, at + 6, sum === 0 ? 0xffff : sum);
}

/**
 * The UDP codec for one pair of addresses, because the checksum covers them. A checksum of zero means
 * "none was made" and is accepted, as RFC 768 says.
 */
export const udp = (from: Ipv4, to: Ipv4): Codec<UdpDatagram> => ({
  length: (datagram) => 8 + datagram.payload.length,
  encode(datagram, bytes, at) {
    const next = putBytes(bytes, at + 8, datagram.payload);
    putUdpHeader(bytes, at, { from, to, ...datagram }, datagram.payload.length);
    return next;
  },
  decode(bytes, at, end) {
    need('udp.header', at, end, 8);
    const length = u16(bytes, at + 4);
    if (length < 8) throw new DecodeError('udp.length', at + 4, 8, length);
    need('udp.payload', at, end, length);
    const stored = u16(bytes, at + 6);
    const pseudo = pseudoHeaderSum(from, to, PROTOCOL.udp, length);
    if (stored !== 0 && !transportChecksumFits(bytes, at, at + length, pseudo, stored))
      throw new DecodeError('udp.checksum', at + 6, 0, stored);
    return {
      value: {
        fromPort: u16(bytes, at),
        toPort: u16(bytes, at + 2),
        payload: bytes.subarray(at + 8, at + length),
      },
      next: at + length,
    };
  },
});
