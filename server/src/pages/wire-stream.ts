import { Duplex } from 'node:stream';
import type { MessagePort } from 'node:worker_threads';
import type { PageBytes } from '../field/pages';

/** A conversation with a device, held by the thread of the wire, as a stream. */
export class WireStream extends Duplex {
  constructor(private readonly port: MessagePort) {
    super();
    port.on('message', (what: PageBytes) => {
      if (what instanceof Uint8Array) this.push(what);
      else if (what.ended === 'closed') this.push(null);
      else this.destroy(new Error(what.ended));
    });
    // The thread fell over, and its end of the port with it.
    port.on('close', () => this.push(null));
  }

  override _read(): void {
    // What comes is pushed as it comes; a page is small.
  }

  override _write(chunk: Buffer, _encoding: BufferEncoding, done: () => void): void {
    this.port.postMessage(new Uint8Array(chunk));
    done();
  }

  override _final(done: () => void): void {
    done();
  }

  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    this.port.postMessage({ ended: 'closed' } satisfies PageBytes);
    this.port.close();
    done(error);
  }

  // What http asks of a socket, and has no meaning here.
  setKeepAlive = (): this => this;
  setNoDelay = (): this => this;
  setTimeout = (): this => this;
  ref = (): this => this;
  unref = (): this => this;
}
