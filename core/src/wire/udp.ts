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

/**
 * The UDP codec for one pair of addresses, because the checksum covers them. A checksum of zero means
 * "none was made" and is accepted, as RFC 768 says.
 */
export const udp = (from: Ipv4, to: Ipv4): Codec<UdpDatagram> => ({
  length: (datagram) => 8 + datagram.payload.length,
  encode(datagram, bytes, at) {
    const length = 8 + datagram.payload.length;
    put16(bytes, at, datagram.fromPort);
    put16(bytes, at + 2, datagram.toPort);
    put16(bytes, at + 4, length);
    put16(bytes, at + 6, 0);
    const next = putBytes(bytes, at + 8, datagram.payload);
    const pseudo = pseudoHeaderSum(from, to, PROTOCOL.udp, length);
    const sum = checksumFold(checksumAdd(bytes, at, next, pseudo));
    put16(bytes, at + 6, sum === 0 ? 0xffff : sum);
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
