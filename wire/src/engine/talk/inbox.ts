import type { TcpStream } from '../../carriers/carrier';

const NOTHING = new Uint8Array(0);
const REPLY_MILLIS = 5000;

/** A conversation that hung up, fell silent, or went on otherwise than agreed. */
export class Broken extends Error {
  constructor(
    readonly step: string,
    readonly why: string,
  ) {
    super(why);
  }
}

/** What arrives over a stream, cut into whole messages. */
export class Inbox {
  private waiting: Uint8Array = NOTHING;
  private closed = false;
  private wake: (() => void) | undefined;

  /** @param sizeOf how many bytes the message at the start needs; undefined while that cannot be told */
  constructor(
    private readonly stream: TcpStream,
    private readonly sizeOf: (bytes: Uint8Array) => number | undefined,
  ) {
    stream.onData((data) => {
      const joined = new Uint8Array(this.waiting.length + data.length);
      joined.set(this.waiting);
      joined.set(data, this.waiting.length);
      this.waiting = joined;
      this.wake?.();
    });
    stream.onClose(() => {
      this.closed = true;
      this.wake?.();
    });
  }

  /** The next whole message. @throws Broken where none comes */
  async next(step: string): Promise<Uint8Array> {
    const until = this.stream.clock.now() + REPLY_MILLIS;
    for (;;) {
      const size = this.sizeOf(this.waiting);
      if (size !== undefined && this.waiting.length >= size) {
        const message = this.waiting.slice(0, size);
        this.waiting = this.waiting.slice(size);
        return message;
      }
      if (this.closed) throw new Broken(step, 'closed');
      const left = until - this.stream.clock.now();
      if (left <= 0) throw new Broken(step, 'silent');
      await this.news(left);
    }
  }

  private news(millis: number): Promise<void> {
    return new Promise((resolve) => {
      const callOff = this.stream.clock.after(millis, resolve);
      this.wake = () => {
        callOff();
        resolve();
      };
    });
  }
}
