import { toMac, type MacAddress } from '../net';
import { readMac, u16, u8 } from './codec';
import type { EthernetFrame } from './ethernet';

/** The group address of bridges (IEEE 802.1D-2004 §7.12.3). */
const BRIDGES = toMac(0x0180c2000000);
/** Destination and source of bridges in the logical link, and an unnumbered frame (IEEE 802.2). */
const LINK = [0x42, 0x42, 0x03] as const;
const BRIDGE_AT = 20;
const PORT_AT = 28;
const LENGTH = 30;

/** The bridge that sent a frame of the spanning tree, and the number of its port. */
export interface TreeBridge {
  readonly mac: MacAddress;
  readonly port: number;
}

/**
 * What a configuration message of the spanning tree says of its sender (IEEE 802.1D-2004 §9.3.1); undefined
 * for every other frame.
 */
export function treeBridgeOf({ to, payload }: EthernetFrame): TreeBridge | undefined {
  if (to !== BRIDGES || payload.length < LENGTH) return undefined;
  if (LINK.some((byte, at) => payload[at] !== byte) || u16(payload, 3) !== 0) return undefined;
  // A notice of a change of topology carries nothing.
  if (u8(payload, 6) === 0x80) return undefined;
  return { mac: readMac(payload, BRIDGE_AT + 2), port: u16(payload, PORT_AT) & 0x0fff };
}
