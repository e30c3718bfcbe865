import { closeSync } from 'node:fs';
import { Socket } from 'node:net';
import { libc } from './libc';

const AF_UNIX = 1;
const SOCK_STREAM = 1;
const SOCK_CLOEXEC = 0o2000000;
const FRAME = 65536;
/** The socket outlives its adapter's errors, and hears on when it is up again. */
const AGAIN_AFTER = 50;

/**
 * Tells the first frame that waits on a packet socket, each time that one does. Node reads what it knows the kind of in
 * its event loop, and all else in its pool of threads, which costs each frame two changes of threads: so the socket is
 * put in the place of one end of a pair (socketpair(2), dup2(2)) that Node was given before it read anything.
 */
export class FrameReader {
  private socket: Socket | undefined;
  private again: NodeJS.Timeout | undefined;
  private readonly buffer = Buffer.alloc(FRAME);

  constructor(
    private readonly fd: number,
    private readonly take: (frame: Uint8Array) => void,
  ) {
    this.begin();
  }

  /** Closes the packet socket as well. */
  close(): void {
    clearTimeout(this.again);
    this.socket?.removeAllListeners('close').destroy();
    closeSync(this.fd);
  }

  private begin(): void {
    const pair = Buffer.alloc(8);
    if (libc().socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, pair) < 0) return this.later();
    const [here, there] = [pair.readInt32LE(0), pair.readInt32LE(4)];
    const callback = (count: number, bytes: Uint8Array) => {
      this.take(Uint8Array.prototype.slice.call(bytes, 0, count));
      return true;
    };
    const options = { fd: here, writable: false, onread: { buffer: this.buffer, callback } };
    const socket = new Socket(options as ConstructorParameters<typeof Socket>[0]);
    libc().dup2(this.fd, here);
    closeSync(there);
    // An adapter that goes down is told as an error, once (packet(7)): it is no end.
    socket.on('error', () => undefined);
    socket.on('close', () => this.later());
    socket.resume();
    this.socket = socket;
  }

  private later(): void {
    this.again = setTimeout(() => this.begin(), AGAIN_AFTER);
  }
}
