import koffi from 'koffi';

export interface Libc {
  socket(domain: number, type: number, protocol: number): number;
  /** socketpair(2): two descriptors, four bytes each. */
  socketpair(domain: number, type: number, protocol: number, pair: Buffer): number;
  dup2(from: number, to: number): number;
  setsockopt(fd: number, level: number, name: number, value: Buffer, length: number): number;
  /** getsockopt(2): `length` is read and written. */
  getsockopt(fd: number, level: number, name: number, value: Buffer, length: Buffer): number;
  bind(fd: number, address: Buffer, length: number): number;
  recv(fd: number, buffer: Buffer, length: number, flags: number): number;
  /** recvmsg(2): what the kernel says beside a frame comes with it. */
  recvmsg(fd: number, message: Buffer, flags: number): number;
  send(fd: number, frame: Uint8Array, length: number, flags: number): number;
}

let loaded: Libc | undefined;

/** Loaded when a real adapter is opened, so that the practice site runs wherever Node does. */
export function libc(): Libc {
  if (loaded) return loaded;
  const library = koffi.load('libc.so.6');
  loaded = {
    socket: library.func('int socket(int, int, int)'),
    socketpair: library.func('int socketpair(int, int, int, void *)'),
    dup2: library.func('int dup2(int, int)'),
    setsockopt: library.func('int setsockopt(int, int, int, const void *, uint32_t)'),
    getsockopt: library.func('int getsockopt(int, int, int, void *, void *)'),
    bind: library.func('int bind(int, const void *, uint32_t)'),
    recv: library.func('long recv(int, _Out_ uint8_t *, size_t, int)'),
    recvmsg: library.func('long recvmsg(int, void *, int)'),
    send: library.func('long send(int, const uint8_t *, size_t, int)'),
  };
  return loaded;
}

/** The address of a buffer's bytes, as C structures hold it. */
export const pointerTo = (buffer: Buffer): bigint => koffi.address(buffer);

/** Why the last call failed. */
export const errno = (): number => koffi.errno();
