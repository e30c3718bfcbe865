import { Duplex } from 'node:stream';
import type { MessagePort } from 'node:worker_threads';
import type { PageBytes } from '@ipsonomo/wire';

/** A conversation with a device, held by the thread of the wire, as a stream. */
export class WireStream extends Duplex {
  private received = 0;
  private told = 0;

  constructor(private readonly port: MessagePort) {
    super();
    port.on('message', (what: PageBytes) => {
      if (what instanceof Uint8Array) this.receive(what);
      else if ('taken' in what) return;
      else if (what.ended === 'closed') this.push(null);
      else this.destroy(new Error(what.ended));
    });
    // The thread fell over, and its end of the port with it.
    port.on('close', () => this.push(null));
  }

  /** Whoever reads wants more: what was read is told, and as much may come again. */
  override _read(): void {
    this.tellTaken();
  }

  private receive(bytes: Uint8Array): void {
    this.received += bytes.length;
    if (this.push(bytes)) this.tellTaken();
  }

  private tellTaken(): void {
    const taken = this.received - this.readableLength - this.told;
    if (taken <= 0) return;
    this.told += taken;
    this.port.postMessage({ taken } satisfies PageBytes);
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
