import { decodeWith, encapsulation, encapsulationSize, encodeWith } from '@ipsonomo/core';
import type { Encapsulation } from '@ipsonomo/core';
import type { TcpStream } from './carrier';

const CONTEXT = Uint8Array.from('ipsonomo', (letter) => letter.charCodeAt(0));
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

/** Messages of the encapsulation protocol over a stream: one out, one back. */
export class Encapsulated {
  session = 0;
  private inbox: Uint8Array = NOTHING;
  private closed = false;
  private wake: (() => void) | undefined;

  constructor(private readonly stream: TcpStream) {
    stream.onData((data) => {
      const joined = new Uint8Array(this.inbox.length + data.length);
      joined.set(this.inbox);
      joined.set(data, this.inbox.length);
      this.inbox = joined;
      this.wake?.();
    });
    stream.onClose(() => {
      this.closed = true;
      this.wake?.();
    });
  }

  send(command: number, data: Uint8Array = NOTHING): void {
    const { session } = this;
    this.stream.write(
      encodeWith(encapsulation, { command, session, status: 0, context: CONTEXT, data }),
    );
  }

  /** @throws Broken where none comes, DecodeError where it is none */
  async reply(step: string): Promise<Encapsulation> {
    const until = Date.now() + REPLY_MILLIS;
    for (;;) {
      const size = encapsulationSize(this.inbox);
      if (size !== undefined && this.inbox.length >= size) {
        const message = decodeWith(encapsulation, this.inbox.slice(0, size));
        this.inbox = this.inbox.slice(size);
        return message;
      }
      if (this.closed) throw new Broken(step, 'closed');
      const left = until - Date.now();
      if (left <= 0) throw new Broken(step, 'silent');
      await this.news(left);
    }
  }

  private news(millis: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, millis);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
