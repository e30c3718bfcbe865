import type { Ipv4 } from '../net';
import {
  checksumAdd,
  checksumFold,
  DecodeError,
  expect,
  need,
  put16,
  put32,
  putBytes,
  readIpv4,
  u16,
  u8,
  type Codec,
} from './codec';

export const PROTOCOL = { icmp: 1, tcp: 6, udp: 17 } as const;

/** An IPv4 packet (RFC 791 §3.1). Options are kept as bytes. */
export interface Ipv4Packet {
  readonly from: Ipv4;
  readonly to: Ipv4;
  readonly protocol: number;
  readonly timeToLive: number;
  readonly identification: number;
  readonly typeOfService: number;
  readonly dontFragment: boolean;
  readonly moreFragments: boolean;
  /** In units of 8 bytes. */
  readonly fragmentOffset: number;
  /** A multiple of four bytes, at most 40. */
  readonly options: Uint8Array;
  readonly payload: Uint8Array;
}

/** A header with the usual values for what is not named. */
export const ipv4HeaderOf = (
  from: Ipv4,
  to: Ipv4,
  protocol: number,
): Omit<Ipv4Packet, 'payload'> => ({
  from,
  to,
  protocol,
  timeToLive: 64,
  identification: 0,
  typeOfService: 0,
  dontFragment: false,
  moreFragments: false,
  fragmentOffset: 0,
  options: NO_OPTIONS,
});

const NO_OPTIONS = new Uint8Array(0);

/** A packet with the usual values for what is not named. */
export const ipv4PacketOf = (
  fields: Pick<Ipv4Packet, 'from' | 'to' | 'protocol' | 'payload'> & Partial<Ipv4Packet>,
): Ipv4Packet => ({ ...ipv4HeaderOf(fields.from, fields.to, fields.protocol), ...fields });

/** Writes what stands before a payload of this length; returns where that begins. */
export function putIpv4Header(
  bytes: Uint8Array,
  at: number,
  header: Omit<Ipv4Packet, 'payload'>,
  payloadLength: number,
): number {
  const headerEnd = at + 20 + header.options.length;
  bytes[at] = 0x40 | ((headerEnd - at) >>> 2);
  bytes[at + 1] = header.typeOfService;
  put16(bytes, at + 2, headerEnd - at + payloadLength);
  put16(bytes, at + 4, header.identification);
  const flags = (header.dontFragment ? 0x4000 : 0) | (header.moreFragments ? 0x2000 : 0);
  put16(bytes, at + 6, flags | header.fragmentOffset);
  bytes[at + 8] = header.timeToLive;
  bytes[at + 9] = header.protocol;
  put16(bytes, at + 10, 0);
  put32(bytes, at + 12, header.from);
  put32(bytes, at + 16, header.to);
  putBytes(bytes, at + 20, header.options);
  put16(bytes, at + 10, checksumFold(checksumAdd(bytes, at, headerEnd)));
  return headerEnd;
}

export const ipv4Packet: Codec<Ipv4Packet> = {
  length: (packet) => 20 + packet.options.length + packet.payload.length,
  encode(packet, bytes, at) {
    const next = putIpv4Header(bytes, at, packet, packet.payload.length);
    return putBytes(bytes, next, packet.payload);
  },
  decode(bytes, at, end) {
    need('ipv4.header', at, end, 20);
    expect('ipv4.version', at, 4, u8(bytes, at) >>> 4);
    const headerLength = (u8(bytes, at) & 15) * 4;
    if (headerLength < 20) throw new DecodeError('ipv4.headerLength', at, 20, headerLength);
    need('ipv4.options', at, end, headerLength);
    const total = u16(bytes, at + 2);
    if (total < headerLength) throw new DecodeError('ipv4.total', at + 2, headerLength, total);
    need('ipv4.payload', at, end, total);
    const sum = checksumFold(checksumAdd(bytes, at, at + headerLength));
    if (sum !== 0) throw new DecodeError('ipv4.checksum', at + 10, 0, sum);
    const fragment = u16(bytes, at + 6);
    return {
      value: {
        from: readIpv4(bytes, at + 12),
        to: readIpv4(bytes, at + 16),
        protocol: u8(bytes, at + 9),
        timeToLive: u8(bytes, at + 8),
        identification: u16(bytes, at + 4),
        typeOfService: u8(bytes, at + 1),
        dontFragment: (fragment & 0x4000) !== 0,
        moreFragments: (fragment & 0x2000) !== 0,
        fragmentOffset: fragment & 0x1fff,
        options: headerLength === 20 ? NO_OPTIONS : bytes.subarray(at + 20, at + headerLength),
        payload: bytes.subarray(at + headerLength, at + total),
      },
      next: at + total,
    };
  },
};

/** The sum over the pseudo header of UDP and TCP (RFC 768, RFC 9293 §3.1). */
export function pseudoHeaderSum(from: Ipv4, to: Ipv4, protocol: number, length: number): number {
  return (from >>> 16) + (from & 0xffff) + (to >>> 16) + (to & 0xffff) + protocol + length;
}

/**
 * Is the checksum of a UDP datagram or TCP segment right? Also accepted is the bare pseudo-header
 * sum: a capture on a machine whose adapter is to fill in the checksum sees its own and its
 * virtual neighbours' packets like that (Linux, CHECKSUM_PARTIAL).
 * @param pseudo the pseudo-header sum
 * @param stored the checksum as it stands in the bytes
 */
export function transportChecksumFits(
  bytes: Uint8Array,
  at: number,
  end: number,
  pseudo: number,
  stored: number,
): boolean {
  if (checksumFold(checksumAdd(bytes, at, end, pseudo)) === 0) return true;
  return stored === (~checksumFold(pseudo) & 0xffff);
}
