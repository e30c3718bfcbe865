import { formatIpv4, formatMac, type MacAddress } from '../net';
import { need, putBytes, readIpv4, readMac, toLatin1, u16, u8, type Codec } from './codec';
import { toHex } from './hex';

// The link layer discovery protocol: what a switch says of the port a cable is plugged into
// (IEEE 802.1AB-2016 §8; confirmed with tshark's dissector and lldpd).

/** One element: what it is about, and its bytes. */
export interface LldpElement {
  /** 0–127. */
  readonly type: number;
  readonly data: Uint8Array;
}

const END = 0;
const CHASSIS = 1;
const PORT = 2;
const LIFE = 3;
const PORT_DESCRIPTION = 4;
const SYSTEM_NAME = 5;
const MANAGEMENT = 8;
const OWN = 127;

/** The elements of a message, the closing one left out; what follows that is padding. */
export const lldp: Codec<readonly LldpElement[]> = {
  length: (elements) => elements.reduce((sum, { data }) => sum + 2 + data.length, 2),
  encode(elements, bytes, at) {
    let next = at;
    for (const { type, data } of [...elements, { type: END, data: new Uint8Array(0) }]) {
      bytes[next] = (type << 1) | (data.length >>> 8);
      bytes[next + 1] = data.length;
      next = putBytes(bytes, next + 2, data);
    }
    return next;
  },
  decode(bytes, at, end) {
    const elements: LldpElement[] = [];
    let next = at;
    for (;;) {
      need('lldp.element', next, end, 2);
      const head = u16(bytes, next);
      const type = head >>> 9;
      const length = head & 0x1ff;
      need('lldp.value', next + 2, end, length);
      if (type === END) return { value: elements, next: next + 2 + length };
      elements.push({ type, data: bytes.subarray(next + 2, next + 2 + length) });
      next += 2 + length;
    }
  },
};

/** What the neighbour at the other end of the cable says of itself. */
export interface Neighbour {
  readonly mac: MacAddress;
  /** The name of the system, or else how it identifies itself. */
  readonly system: string;
  readonly port: string;
  readonly portDescription: string;
  /** The VLAN of untagged frames at this port (IEEE 802.1Q Annex D.2.1). */
  readonly vlan: number | undefined;
  /** Where it is managed. */
  readonly address: string | undefined;
  /** So long what it says holds. */
  readonly seconds: number;
}

const MAC_SUBTYPE = { [CHASSIS]: 4, [PORT]: 3 } as const;
const ADDRESS_SUBTYPE = { [CHASSIS]: 5, [PORT]: 4 } as const;

/** Chassis and port are named by a MAC, an address or text, as a byte before says. */
function nameOf({ type, data }: LldpElement): string {
  const which = type === CHASSIS ? CHASSIS : PORT;
  const subtype = data[0];
  const value = data.subarray(1);
  if (subtype === MAC_SUBTYPE[which] && value.length === 6) return formatMac(readMac(value, 0));
  if (subtype === ADDRESS_SUBTYPE[which] && value.length === 5 && value[0] === 1)
    return formatIpv4(readIpv4(value, 1));
  return readable(value);
}

const readable = (data: Uint8Array): string => {
  const text = toLatin1(data).replace(/\0+$/, '');
  return /^[\x20-\x7e\xa0-\xff]*$/.test(text) ? text : toHex(data);
};

/** IEEE 802.1 sends the VLAN of the port as an element of its own: OUI 00-80-C2, subtype 1. */
function vlanOf(elements: readonly LldpElement[]): number | undefined {
  const found = elements.find(
    ({ type, data }) =>
      type === OWN && data.length >= 6 && toHex(data.subarray(0, 4)) === '0080c201',
  );
  const vlan = found && u16(found.data, 4);
  return vlan === 0 ? undefined : vlan;
}

function addressOf(elements: readonly LldpElement[]): string | undefined {
  const found = elements.find(
    ({ type, data }) => type === MANAGEMENT && u8(data, 0) === 5 && u8(data, 1) === 1,
  );
  return found && found.data.length >= 6 ? formatIpv4(readIpv4(found.data, 2)) : undefined;
}

/** What a message says; undefined where the three elements that every message has are not there. */
export function neighbourOf(
  mac: MacAddress,
  elements: readonly LldpElement[],
): Neighbour | undefined {
  const find = (wanted: number) => elements.find(({ type }) => type === wanted);
  const [chassis, port, life] = [find(CHASSIS), find(PORT), find(LIFE)];
  if (!chassis || !port || !life || life.data.length < 2) return undefined;
  const text = (wanted: number) => readable(find(wanted)?.data ?? new Uint8Array(0));
  return {
    mac,
    system: text(SYSTEM_NAME) || nameOf(chassis),
    port: nameOf(port),
    portDescription: text(PORT_DESCRIPTION),
    vlan: vlanOf(elements),
    address: addressOf(elements),
    seconds: u16(life.data, 0),
  };
}
