import { read, closeSync } from 'node:fs';
import koffi from 'koffi';
import { must, parseMac } from '@ipsonomo/core';
import { indexOf, isUp, readAdapterFile } from './adapters';
import type { Borrowings } from './borrowed';
import type { Carrier, CarrierEvents, LinkState, TcpRequest } from './carrier';
import { kernelFilter } from './kernel-filter';
import { openLiveTcp } from './live-tcp';
import { FieldRefusal } from './protocol';

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
const PACKET_IGNORE_OUTGOING = 23;
/** Every group address on the wire: stations and switches speak to some that we do not know beforehand. */
const PACKET_ADD_MEMBERSHIP = 1;
const PACKET_MR_ALLMULTI = 2;
const MSG_DONTWAIT = 0x40;
const EPERM = 1;

const BUFFER = 4 * 1024 * 1024;
const FRAME = 65536;
const POLL = 500;
const READ_TIMEOUT_MICROS = 400_000;

interface Libc {
  socket(domain: number, type: number, protocol: number): number;
  setsockopt(fd: number, level: number, name: number, value: Buffer, length: number): number;
  bind(fd: number, address: Buffer, length: number): number;
  recv(fd: number, buffer: Buffer, length: number, flags: number): number;
  send(fd: number, frame: Uint8Array, length: number, flags: number): number;
}

let loaded: Libc | undefined;

/** Loaded when a real adapter is opened, so that the practice site runs wherever Node does. */
function libc(): Libc {
  if (loaded) return loaded;
  const library = koffi.load('libc.so.6');
  loaded = {
    socket: library.func('int socket(int, int, int)'),
    setsockopt: library.func('int setsockopt(int, int, int, const void *, uint32_t)'),
    bind: library.func('int bind(int, const void *, uint32_t)'),
    recv: library.func('long recv(int, _Out_ uint8_t *, size_t, int)'),
    send: library.func('long send(int, const uint8_t *, size_t, int)'),
  };
  return loaded;
}

const swap16 = (value: number): number => ((value & 255) << 8) | (value >>> 8);

/** Opens the raw socket. Refuses with `wire.noAdapter`, `wire.noRight` or `wire.failed`. */
function openSocket(adapter: string, filter: Buffer): number {
  const index = indexOf(adapter);
  if (index === 0) throw new FieldRefusal('wire.noAdapter', { adapter });
  const { socket, setsockopt, bind } = libc();
  const fd = socket(AF_PACKET, SOCK_RAW | SOCK_CLOEXEC, 0);
  if (fd < 0) {
    const errno = koffi.errno();
    throw new FieldRefusal(errno === EPERM ? 'wire.noRight' : 'wire.failed', { adapter, errno });
  }
  const set = (level: number, name: number, value: Buffer): number =>
    setsockopt(fd, level, name, value, value.length);
  // The filter first: until it is bound the socket hears nothing, so nothing slips past.
  const program = Buffer.alloc(16);
  program.writeUInt16LE(filter.length / 8, 0);
  program.writeBigUInt64LE(koffi.address(filter), 8);
  const size = int32(BUFFER);
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
    set(SOL_PACKET, PACKET_IGNORE_OUTGOING, int32(1)) < 0 ||
    bind(fd, address, address.length) < 0 ||
    set(SOL_PACKET, PACKET_ADD_MEMBERSHIP, everyGroup) < 0;
  if (!failed) return fd;
  const errno = koffi.errno();
  closeSync(fd);
  throw new FieldRefusal('wire.failed', { adapter, errno });
}

const int32 = (value: number): Buffer => {
  const bytes = Buffer.alloc(4);
  bytes.writeInt32LE(value);
  return bytes;
};

/**
 * A real adapter. Survives the cable pulled and the adapter going away and coming back: a socket of
 * a removed adapter goes deaf without an error, so its index is looked at twice a second.
 */
export class LiveCarrier implements Carrier {
  readonly source: string;
  readonly mac;
  private fd: number | undefined;
  private index: number;
  private link: LinkState;
  private readonly poll: NodeJS.Timeout;
  private readonly waitBuffer = Buffer.alloc(FRAME);
  private readonly drainBuffer = Buffer.alloc(FRAME);

  constructor(
    private readonly adapter: string,
    private readonly borrowings: Borrowings,
    private readonly events: CarrierEvents,
    private readonly filter: Buffer = kernelFilter(),
  ) {
    this.source = `live:${adapter}`;
    this.fd = openSocket(adapter, filter);
    this.mac = must(parseMac(readAdapterFile(adapter, 'address') ?? ''));
    this.index = indexOf(adapter);
    this.link = isUp(adapter) ? 'up' : 'down';
    events.link(this.link);
    this.wait(this.fd);
    this.poll = setInterval(() => this.look(), POLL);
  }

  send(frame: Uint8Array): void {
    if (this.fd !== undefined) libc().send(this.fd, frame, frame.length, 0);
  }

  readonly openTcp = (request: TcpRequest) => openLiveTcp(this.borrowings, this.adapter, request);

  close(): void {
    clearInterval(this.poll);
    this.fd = undefined; // the pending read ends within its timeout and closes the socket
  }

  /** Waits for one frame in the thread pool, then takes all that are there. */
  private wait(fd: number): void {
    read(fd, this.waitBuffer, 0, FRAME, null, (_error, count) => {
      if (this.fd !== fd) {
        closeSync(fd);
        return;
      }
      if (count > 0) this.events.frame(Uint8Array.prototype.slice.call(this.waitBuffer, 0, count));
      if (count > 0) this.drain(fd);
      this.wait(fd);
    });
  }

  private drain(fd: number): void {
    for (let taken = 0; taken < 1024; taken += 1) {
      const count = libc().recv(fd, this.drainBuffer, FRAME, MSG_DONTWAIT);
      if (count <= 0) return;
      this.events.frame(Uint8Array.prototype.slice.call(this.drainBuffer, 0, count));
    }
  }

  private look(): void {
    const index = this.isSame() ? indexOf(this.adapter) : 0;
    if (index !== this.index) {
      this.index = index;
      this.fd = undefined;
      if (index !== 0) this.reopen();
    }
    const link: LinkState = index === 0 ? 'gone' : isUp(this.adapter) ? 'up' : 'down';
    if (link === this.link) return;
    this.link = link;
    this.events.link(link);
  }

  /** Another adapter that took the name is not the one that was chosen. */
  private isSame(): boolean {
    const mac = parseMac(readAdapterFile(this.adapter, 'address') ?? '');
    return mac.ok && mac.value === this.mac;
  }

  private reopen(): void {
    try {
      this.fd = openSocket(this.adapter, this.filter);
      this.wait(this.fd);
    } catch (error) {
      if (!(error instanceof FieldRefusal)) throw error;
      this.index = 0; // try again at the next look
    }
  }
}
