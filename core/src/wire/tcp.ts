import type { Ipv4 } from '../net';
import {
  checksumAdd,
  checksumFold,
  DecodeError,
  need,
  put16,
  put32,
  putBytes,
  u16,
  u32,
  u8,
  type Codec,
} from './codec';
import { PROTOCOL, pseudoHeaderSum, transportChecksumFits } from './ipv4-packet';

/** A TCP segment (RFC 9293 §3.1). Options are kept as bytes. */
export interface TcpSegment {
  readonly fromPort: number;
  readonly toPort: number;
  readonly sequence: number;
  readonly acknowledgment: number;
  /** The control bits: see TCP_FLAG. */
  readonly flags: number;
  readonly window: number;
  /** A multiple of four bytes, at most 40. */
  readonly options: Uint8Array;
  readonly payload: Uint8Array;
}

export const TCP_FLAG = { fin: 1, syn: 2, rst: 4, psh: 8, ack: 16 } as const;

/** The TCP codec for one pair of addresses, because the checksum covers them. */
export const tcp = (from: Ipv4, to: Ipv4): Codec<TcpSegment> => ({
  length: (segment) => 20 + segment.options.length + segment.payload.length,
  encode(segment, bytes, at) {
    const header = 20 + segment.options.length;
    put16(bytes, at, segment.fromPort);
    put16(bytes, at + 2, segment.toPort);
    put32(bytes, at + 4, segment.sequence);
    put32(bytes, at + 8, segment.acknowledgment);
    put16(bytes, at + 12, ((header >>> 2) << 12) | segment.flags);
    put16(bytes, at + 14, segment.window);
    put32(bytes, at + 16, 0);
    putBytes(bytes, at + 20, segment.options);
    const next = putBytes(bytes, at + header, segment.payload);
    const pseudo = pseudoHeaderSum(from, to, PROTOCOL.tcp, next - at);
    put16(bytes, at + 16, checksumFold(checksumAdd(bytes, at, next, pseudo)));
    return next;
  },
  decode(bytes, at, end) {
    need('tcp.header', at, end, 20);
    const header = (u8(bytes, at + 12) >>> 4) * 4;
    if (header < 20) throw new DecodeError('tcp.headerLength', at + 12, 20, header);
    need('tcp.options', at, end, header);
    const pseudo = pseudoHeaderSum(from, to, PROTOCOL.tcp, end - at);
    const stored = u16(bytes, at + 16);
    if (!transportChecksumFits(bytes, at, end, pseudo, stored))
      throw new DecodeError('tcp.checksum', at + 16, 0, stored);
    return {
      value: {
        fromPort: u16(bytes, at),
        toPort: u16(bytes, at + 2),
        sequence: u32(bytes, at + 4),
        acknowledgment: u32(bytes, at + 8),
        flags: u8(bytes, at + 13) & 0x3f,
        window: u16(bytes, at + 14),
        options: bytes.subarray(at + 20, at + header),
        payload: bytes.subarray(at + header, end),
      },
      next: end,
    };
  },
});
