import type { MacAddress } from '../net';
import { need, put16, putBytes, putMac, readMac, u16, type Codec } from './codec';

export const ETHERTYPE = {
  ipv4: 0x0800,
  arp: 0x0806,
  vlan: 0x8100,
  discovery: 0x8892,
  lldp: 0x88cc,
} as const;

/** A 802.1Q tag (IEEE 802.1Q §9.6): priority 0–7, drop eligible, VLAN 0–4095. */
interface VlanTag {
  readonly priority: number;
  readonly dropEligible: boolean;
  readonly vlan: number;
}

/** An Ethernet II frame without its check sequence. */
export interface EthernetFrame {
  readonly to: MacAddress;
  readonly from: MacAddress;
  readonly tag?: VlanTag;
  readonly etherType: number;
  /** May end in padding: adapters fill frames up to 60 bytes. */
  readonly payload: Uint8Array;
}

/** Writes what stands before the payload; returns where that begins. */
export function putEthernetHeader(
  bytes: Uint8Array,
  at: number,
  header: Omit<EthernetFrame, 'payload'>,
): number {
  let next = putMac(bytes, at, header.to);
  next = putMac(bytes, next, header.from);
  if (header.tag) {
    next = put16(bytes, next, ETHERTYPE.vlan);
    const { priority, dropEligible, vlan } = header.tag;
    next = put16(bytes, next, (priority << 13) | (dropEligible ? 0x1000 : 0) | vlan);
  }
  return put16(bytes, next, header.etherType);
}

/** Whom a frame is for; undefined where it is too short to say. */
export const receiverOf = (frame: Uint8Array): MacAddress | undefined =>
  frame.length < 14 ? undefined : readMac(frame, 0);

/** Who sent a frame; undefined where it is too short to say. */
export const senderOf = (frame: Uint8Array): MacAddress | undefined =>
  frame.length < 14 ? undefined : readMac(frame, 6);

const TAG_AT = 12;

/**
 * The VLAN a frame is tagged for; undefined without a tag, and for VLAN 0, which carries only a priority
 * (IEEE 802.1Q §9.6).
 */
export function vlanOf(frame: Uint8Array): number | undefined {
  if (frame.length < TAG_AT + 4 || u16(frame, TAG_AT) !== ETHERTYPE.vlan) return undefined;
  const vlan = u16(frame, TAG_AT + 2) & 0xfff;
  return vlan === 0 ? undefined : vlan;
}

/** An untagged frame with a tag put in: its control information, priority and VLAN, 16 bits. */
export function withTag(frame: Uint8Array, control: number): Uint8Array {
  const tagged = new Uint8Array(frame.length + 4);
  tagged.set(frame.subarray(0, TAG_AT));
  put16(tagged, put16(tagged, TAG_AT, ETHERTYPE.vlan), control);
  tagged.set(frame.subarray(TAG_AT), TAG_AT + 4);
  return tagged;
}

const headerLength = (frame: EthernetFrame): number => (frame.tag ? 18 : 14);

export const ethernet: Codec<EthernetFrame> = {
  length: (frame) => headerLength(frame) + frame.payload.length,
  encode: (frame, bytes, at) => putBytes(bytes, putEthernetHeader(bytes, at, frame), frame.payload),
  decode(bytes, at, end) {
    need('ethernet.header', at, end, 14);
    const to = readMac(bytes, at);
    const from = readMac(bytes, at + 6);
    const etherType = u16(bytes, at + 12);
    if (etherType !== ETHERTYPE.vlan)
      return { value: { to, from, etherType, payload: bytes.subarray(at + 14, end) }, next: end };
    need('ethernet.tag', at + 14, end, 4);
    const control = u16(bytes, at + 14);
    const tag = {
      priority: control >>> 13,
      dropEligible: (control & 0x1000) !== 0,
      vlan: control & 0xfff,
    };
    const payload = bytes.subarray(at + 18, end);
    return { value: { to, from, tag, etherType: u16(bytes, at + 16), payload }, next: end };
  },
};
