import {
  DecodeError,
  expect,
  fromLatin1,
  need,
  putBytes,
  toLatin1,
  u8,
  type Codec,
} from '../codec';
import { cipRequest, type CipPath, type CipRequest } from './cip';
import { le16, putLe16 } from '../little';

/** One step of a route path: out at a port, to a slot of the backplane or an address on a network. */
export interface PortSegment {
  /** 1 is the backplane; what the number of a network port is belongs to the module. */
  readonly port: number;
  readonly link: number | string;
}

/** Four bits of the first byte; 15 says that the number of the port follows. */
const WIDE_PORT = 15;
/** The link is longer than a byte: its length follows. */
const LONG_LINK = 0x10;
const TYPE = 0xe0;

const segmentLength = ({ port, link }: PortSegment): number => {
  const wide = port >= WIDE_PORT ? 2 : 0;
  const length = typeof link === 'number' ? 2 + wide : 2 + wide + link.length;
  return length + (length % 2);
};

/**
 * The port segments of a route path, padded to an even length each (CIP Vol. 1 Appendix C-1.4.1; from memory, confirmed
 * with tshark). It starts after the module one is connected to.
 * @example slot 5 of the backplane, then 172.22.40.86: 01 05 12 0C 31 37 32 2E 32 32 2E 34 30 2E 38 36
 */
export const portPath: Codec<readonly PortSegment[]> = {
  length: (path) => path.reduce((sum, segment) => sum + segmentLength(segment), 0),
  encode(path, bytes, at) {
    let next = at;
    for (const segment of path) {
      const { port, link } = segment;
      const end = next + segmentLength(segment);
      bytes.fill(0, next, end);
      const isLong = typeof link === 'string';
      bytes[next] = Math.min(port, WIDE_PORT) | (isLong ? LONG_LINK : 0);
      next += 1;
      if (isLong) bytes[next++] = link.length;
      if (port >= WIDE_PORT) next = putLe16(bytes, next, port);
      if (isLong) putBytes(bytes, next, fromLatin1(link));
      else bytes[next] = link;
      next = end;
    }
    return next;
  },
  decode(bytes, at, end) {
    const path: PortSegment[] = [];
    let next = at;
    while (next < end) {
      need('cip.port', next, end, 2);
      const head = u8(bytes, next);
      expect('cip.portSegment', next, 0, head & TYPE);
      const start = next;
      const isLong = (head & LONG_LINK) !== 0;
      const length = isLong ? u8(bytes, next + 1) : 1;
      next += isLong ? 2 : 1;
      let port = head & 0x0f;
      if (port === WIDE_PORT) {
        need('cip.widePort', next, end, 2);
        port = le16(bytes, next);
        next += 2;
      }
      if (port === 0) throw new DecodeError('cip.noPort', start, 1, 0);
      need('cip.link', next, end, length);
      const link = bytes.subarray(next, next + length);
      path.push({ port, link: isLong ? toLatin1(link) : u8(link, 0) });
      next += length;
      next += (next - start) % 2;
    }
    return { value: path, next: Math.min(next, end) };
  },
};

/** The connection manager, and what it is asked to do with a request that is for somebody else. */
export const CONNECTION_MANAGER: CipPath = { classId: 6, instance: 1 };
export const UNCONNECTED_SEND = 0x52;

/** A request that is passed on along a route path (CIP Vol. 1, 3-5.5.4; from memory, confirmed with tshark). */
export interface UnconnectedSend {
  readonly request: CipRequest;
  readonly route: readonly PortSegment[];
}

/** A tick of 2^4 ms, 250 of them: four seconds for the whole way. */
const TICK = 4;
const TICKS = 250;

export const unconnectedSend: Codec<UnconnectedSend> = {
  length: ({ request, route }) => {
    const asked = cipRequest.length(request);
    return 4 + asked + (asked % 2) + 2 + portPath.length(route);
  },
  encode({ request, route }, bytes, at) {
    const asked = cipRequest.length(request);
    bytes[at] = TICK;
    bytes[at + 1] = TICKS;
    putLe16(bytes, at + 2, asked);
    let next = cipRequest.encode(request, bytes, at + 4);
    if (asked % 2 === 1) bytes[next++] = 0;
    bytes[next] = portPath.length(route) / 2;
    bytes[next + 1] = 0;
    next = portPath.encode(route, bytes, next + 2);
    return next;
  },
  decode(bytes, at, end) {
    need('cip.send', at, end, 4);
    const asked = le16(bytes, at + 2);
    need('cip.sent', at + 4, end, asked);
    const request = cipRequest.decode(bytes, at + 4, at + 4 + asked).value;
    const routeAt = at + 4 + asked + (asked % 2);
    need('cip.routeSize', routeAt, end, 2);
    const routeEnd = routeAt + 2 + u8(bytes, routeAt) * 2;
    need('cip.route', routeAt + 2, end, routeEnd - routeAt - 2);
    const route = portPath.decode(bytes, routeAt + 2, routeEnd).value;
    return { value: { request, route }, next: routeEnd };
  },
};
