import { closeSync } from 'node:fs';
import { indexOf } from './adapters';
import { errno, libc, pointerTo } from './libc';
import { FieldRefusal } from '../../protocol';

// Linux packet(7), socket(7). A raw socket of one adapter, opened without native code of our own.
const AF_PACKET = 17;
const SOCK_RAW = 3;
const SOCK_CLOEXEC = 0o2000000;
const ETH_P_ALL = 3;
const SOL_SOCKET = 1;
const SO_RCVTIMEO = 20;
const SO_ATTACH_FILTER = 26;
const SO_RCVBUFFORCE = 33;
const SO_RCVBUF = 8;
const SOL_PACKET = 263;
const PACKET_AUXDATA = 8;
const PACKET_IGNORE_OUTGOING = 23;
/** Every group address on the wire: stations and switches speak to some that we do not know beforehand. */
const PACKET_ADD_MEMBERSHIP = 1;
const PACKET_MR_ALLMULTI = 2;
const EPERM = 1;

const READ_TIMEOUT_MICROS = 400_000;

const swap16 = (value: number): number => ((value & 255) << 8) | (value >>> 8);

const int32 = (value: number): Buffer => {
  const bytes = Buffer.alloc(4);
  bytes.writeInt32LE(value);
  return bytes;
};

/**
 * Opens a raw socket on an adapter that hears what the filter lets through.
 * Refuses with `wire.noAdapter`, `wire.noRight` or `wire.failed`.
 * @param filter an array of `struct sock_filter`
 * @param buffer bytes that may wait in the kernel
 * @returns its file descriptor
 */
export function openPacketSocket(adapter: string, filter: Buffer, buffer: number): number {
  const index = indexOf(adapter);
  if (index === 0) throw FieldRefusal.of('wire.noAdapter', { adapter });
  const { socket, setsockopt, bind } = libc();
  const fd = socket(AF_PACKET, SOCK_RAW | SOCK_CLOEXEC, 0);
  if (fd < 0) {
    const why = errno();
    if (why === EPERM) throw FieldRefusal.of('wire.noRight', { adapter });
    throw FieldRefusal.of('wire.failed', { adapter, errno: why });
  }
  const set = (level: number, name: number, value: Buffer): number =>
    setsockopt(fd, level, name, value, value.length);
  // The filter first: until it is bound the socket hears nothing, so nothing slips past.
  const program = Buffer.alloc(16);
  program.writeUInt16LE(filter.length / 8, 0);
  program.writeBigUInt64LE(pointerTo(filter), 8);
  const size = int32(buffer);
  const timeout = Buffer.alloc(16);
  timeout.writeBigInt64LE(0n, 0);
  timeout.writeBigInt64LE(BigInt(READ_TIMEOUT_MICROS), 8);
  const address = Buffer.alloc(20);
  address.writeUInt16LE(AF_PACKET, 0);
  address.writeUInt16LE(swap16(ETH_P_ALL), 2);
  address.writeInt32LE(index, 4);
  const everyGroup = Buffer.alloc(16);
  everyGroup.writeInt32LE(index, 0);
  everyGroup.writeUInt16LE(PACKET_MR_ALLMULTI, 4);
  const failed =
    set(SOL_SOCKET, SO_ATTACH_FILTER, program) < 0 ||
    (set(SOL_SOCKET, SO_RCVBUFFORCE, size) < 0 && set(SOL_SOCKET, SO_RCVBUF, size) < 0) ||
    set(SOL_SOCKET, SO_RCVTIMEO, timeout) < 0 ||
    set(SOL_PACKET, PACKET_AUXDATA, int32(1)) < 0 ||
    set(SOL_PACKET, PACKET_IGNORE_OUTGOING, int32(1)) < 0 ||
    bind(fd, address, address.length) < 0 ||
    set(SOL_PACKET, PACKET_ADD_MEMBERSHIP, everyGroup) < 0;
  if (!failed) return fd;
  const why = errno();
  closeSync(fd);
  throw FieldRefusal.of('wire.failed', { adapter, errno: why });
}
