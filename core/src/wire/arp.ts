import type { Ipv4, MacAddress } from '../net';
import {
  expect,
  need,
  put16,
  put32,
  putMac,
  readIpv4,
  readMac,
  u16,
  u8,
  type Codec,
} from './codec';

/** An ARP packet for Ethernet and IPv4 (RFC 826). A probe has sender address 0 (RFC 5227 §1.1). */
export interface ArpPacket {
  readonly operation: 'request' | 'reply';
  readonly senderMac: MacAddress;
  readonly senderAddress: Ipv4;
  readonly targetMac: MacAddress;
  readonly targetAddress: Ipv4;
}

const LENGTH = 28;

export const arp: Codec<ArpPacket> = {
  length: () => LENGTH,
  encode(packet, bytes, at) {
    put16(bytes, at, 1);
    put16(bytes, at + 2, 0x0800);
    bytes[at + 4] = 6;
    bytes[at + 5] = 4;
    put16(bytes, at + 6, packet.operation === 'request' ? 1 : 2);
    putMac(bytes, at + 8, packet.senderMac);
    put32(bytes, at + 14, packet.senderAddress);
    putMac(bytes, at + 18, packet.targetMac);
    return put32(bytes, at + 24, packet.targetAddress);
  },
  decode(bytes, at, end) {
    need('arp.packet', at, end, LENGTH);
    expect('arp.hardware', at, 1, u16(bytes, at));
    expect('arp.protocol', at + 2, 0x0800, u16(bytes, at + 2));
    expect('arp.macLength', at + 4, 6, u8(bytes, at + 4));
    expect('arp.addressLength', at + 5, 4, u8(bytes, at + 5));
    const operation = u16(bytes, at + 6);
    if (operation !== 1) expect('arp.operation', at + 6, 2, operation);
    return {
      value: {
        operation: operation === 1 ? 'request' : 'reply',
        senderMac: readMac(bytes, at + 8),
        senderAddress: readIpv4(bytes, at + 14),
        targetMac: readMac(bytes, at + 18),
        targetAddress: readIpv4(bytes, at + 24),
      },
      next: at + LENGTH,
    };
  },
};
