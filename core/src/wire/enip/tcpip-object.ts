import { toIpv4, type Ipv4 } from '../../net';
import { fromLatin1, need, putBytes, toLatin1, type Codec } from '../codec';
import type { CipPath } from './cip';
import { le16, le32, putLe16, putLe32 } from '../little';

/** The TCP/IP interface object: class 0xF5, instance 1 (from memory, confirmed with tshark). */
export const TCPIP_OBJECT = {
  classId: 0xf5,
  capability: 2,
  control: 3,
  interface: 5,
} as const;

export const tcpipPath = (attribute: number): CipPath => ({
  classId: TCPIP_OBJECT.classId,
  instance: 1,
  attribute,
});

/** A 32-bit attribute. */
export const dword: Codec<number> = {
  length: () => 4,
  encode: (value, bytes, at) => putLe32(bytes, at, value),
  decode(bytes, at, end) {
    need('tcpip.dword', at, end, 4);
    return { value: le32(bytes, at), next: at + 4 };
  },
};

/** Bits of attribute 2. */
export const CAPABILITY = {
  bootp: 0x01,
  dhcp: 0x04,
  settable: 0x10,
  setByHardware: 0x20,
  needsReset: 0x40,
} as const;

/** Bits 0–3 of attribute 3: where the device takes its address from at power-up. */
type AddressSource = 'stored' | 'bootp' | 'dhcp' | 'unknown';

const SOURCE_BITS = 0xf;
const SOURCES: readonly AddressSource[] = ['stored', 'bootp', 'dhcp'];

export const sourceOf = (control: number): AddressSource =>
  SOURCES[control & SOURCE_BITS] ?? 'unknown';

/** The control word that keeps the address: bits 0–3 cleared, nothing else touched. */
export const pinnedControl = (control: number): number => (control & ~SOURCE_BITS) >>> 0;

/** Attribute 5. */
interface InterfaceConfiguration {
  readonly address: Ipv4;
  readonly mask: Ipv4;
  readonly gateway: Ipv4;
  readonly nameServer: Ipv4;
  readonly nameServer2: Ipv4;
  readonly domainName: string;
}

export const interfaceConfiguration: Codec<InterfaceConfiguration> = {
  length: ({ domainName }) => 22 + domainName.length + (domainName.length % 2),
  encode(value, bytes, at) {
    let next = putLe32(bytes, at, value.address);
    next = putLe32(bytes, next, value.mask);
    next = putLe32(bytes, next, value.gateway);
    next = putLe32(bytes, next, value.nameServer);
    next = putLe32(bytes, next, value.nameServer2);
    next = putLe16(bytes, next, value.domainName.length);
    next = putBytes(bytes, next, fromLatin1(value.domainName));
    if (value.domainName.length % 2 === 0) return next;
    bytes[next] = 0;
    return next + 1;
  },
  decode(bytes, at, end) {
    need('tcpip.interface', at, end, 22);
    const length = le16(bytes, at + 20);
    need('tcpip.domainName', at + 22, end, length);
    const address = (offset: number) => toIpv4(le32(bytes, at + offset));
    return {
      value: {
        address: address(0),
        mask: address(4),
        gateway: address(8),
        nameServer: address(12),
        nameServer2: address(16),
        domainName: toLatin1(bytes.subarray(at + 22, at + 22 + length)),
      },
      next: Math.min(end, at + 22 + length + (length % 2)),
    };
  },
};
