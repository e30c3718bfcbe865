import type { Server, Socket } from 'node:net';
import { libc } from './libc';

// Linux, include/uapi/linux/in.h and in6.h.
const IPPROTO_IP = 0;
const IP_PKTINFO = 8;
const IP_PKTOPTIONS = 9;
const IPPROTO_IPV6 = 41;
const IPV6_2292PKTINFO = 2;
const IPV6_2292PKTOPTIONS = 6;
/** struct cmsghdr: length (8 bytes), level (4), type (4). */
const CMSG_HEADER = 16;
/** In struct in6_pktinfo the index stands behind the address, in struct in_pktinfo first. */
const IPV6_INDEX_AT = 16;
const ON = Buffer.from([1, 0, 0, 0]);
/** Of a little-endian machine. */
const LENGTH = 4;

const known = new WeakMap<Socket, number>();

/**
 * The adapter that a TCP connection came in through, by its index: the one that its SYN came from, whatever address it
 * was for (ip(7), IP_PKTINFO; the kernel keeps it for an accepted socket and tells it as IP_PKTOPTIONS).
 * @returns undefined where it cannot be told: not Linux, no TCP, or already closed
 */
export function cameInThrough(socket: Socket): number | undefined {
  const before = known.get(socket);
  if (before !== undefined) return before;
  const fd = descriptorOf(socket);
  if (fd === undefined || process.platform !== 'linux') return undefined;
  const index =
    asked(fd, IPPROTO_IP, IP_PKTINFO, IP_PKTOPTIONS, 0) ??
    asked(fd, IPPROTO_IPV6, IPV6_2292PKTINFO, IPV6_2292PKTOPTIONS, IPV6_INDEX_AT);
  if (index !== undefined) known.set(socket, index);
  return index;
}

/** Notes it of every connection at once: of one that has closed it can no longer be told. With TLS a request has a second socket. */
export function noteAdapters(server: Server): void {
  for (const event of ['connection', 'secureConnection']) server.on(event, cameInThrough);
}

/** Node keeps it to itself, but for those who look. */
function descriptorOf(socket: Socket): number | undefined {
  if (!('_handle' in socket)) return undefined;
  const handle = socket._handle as { readonly fd?: number } | null;
  return handle?.fd !== undefined && handle.fd >= 0 ? handle.fd : undefined;
}

function asked(fd: number, level: number, ask: number, tell: number, at: number) {
  try {
    const { setsockopt, getsockopt } = libc();
    if (setsockopt(fd, level, ask, ON, LENGTH) !== 0) return undefined;
    const answer = Buffer.alloc(256);
    const length = Buffer.alloc(LENGTH);
    length.writeUInt32LE(answer.length);
    if (getsockopt(fd, level, tell, answer, length) !== 0) return undefined;
    const isTold = length.readUInt32LE() >= CMSG_HEADER + at + LENGTH;
    const index = isTold ? answer.readUInt32LE(CMSG_HEADER + at) : 0;
    return index === 0 ? undefined : index;
  } catch {
    return undefined; // no such library here
  }
}
