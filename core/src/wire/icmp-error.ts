import type { Ipv4 } from '../net';
import { encodeWith, readIpv4, u16, u8 } from './codec';
import type { IcmpMessage } from './icmp';
import { ipv4Packet, PROTOCOL, type Ipv4Packet } from './ipv4-packet';

const UNREACHABLE = 3;
const EXCEEDED = 11;
const ECHO_REQUEST = 8;
const UNUSED = 4;
/** How much of what it carried is quoted (RFC 792). */
const QUOTED = 8;

/** Why a router gives a packet up: its time-to-live is used up, or it knows no way (RFC 792). */
export type Drop = 'exceeded' | 'net-unreachable' | 'host-unreachable' | 'unreachable';

const CODES: Readonly<Record<Drop, readonly [type: number, code: number]>> = {
  exceeded: [EXCEEDED, 0],
  'net-unreachable': [UNREACHABLE, 0],
  'host-unreachable': [UNREACHABLE, 1],
  unreachable: [UNREACHABLE, 13],
};

/** What a router tells the sender of a packet that it gave up: the head of the packet is quoted. */
export function dropMessage(drop: Drop, packet: Ipv4Packet): IcmpMessage {
  const [type, code] = CODES[drop];
  const whole = encodeWith(ipv4Packet, packet);
  const head = whole.subarray(0, (u8(whole, 0) & 15) * 4 + QUOTED);
  const data = new Uint8Array(UNUSED + head.length);
  data.set(head, UNUSED);
  return { kind: 'other', type, code, data };
}

/** An echo request that was given up on its way. */
export interface DroppedEcho {
  readonly drop: Drop;
  readonly to: Ipv4;
  readonly identifier: number;
  readonly sequence: number;
}

/** Which of our echo requests a message speaks of; undefined for every other message. */
export function droppedEchoOf(message: IcmpMessage): DroppedEcho | undefined {
  if (message.kind !== 'other') return undefined;
  const { type, code, data } = message;
  if ((type !== UNREACHABLE && type !== EXCEEDED) || data.length < UNUSED + 20 + QUOTED)
    return undefined;
  const head = (u8(data, UNUSED) & 15) * 4;
  const echo = UNUSED + head;
  if (u8(data, UNUSED + 9) !== PROTOCOL.icmp || data.length < echo + QUOTED) return undefined;
  if (u8(data, echo) !== ECHO_REQUEST) return undefined;
  return {
    drop: dropOf(type, code),
    to: readIpv4(data, UNUSED + 16),
    identifier: u16(data, echo + 4),
    sequence: u16(data, echo + 6),
  };
}

function dropOf(type: number, code: number): Drop {
  if (type === EXCEEDED) return 'exceeded';
  return code === 0 ? 'net-unreachable' : code === 1 ? 'host-unreachable' : 'unreachable';
}
