import {
  decodeWith,
  encapsulation,
  type Encapsulation,
  encapsulationSize,
  encodeWith,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { Inbox } from '../talk/inbox';

const CONTEXT = Uint8Array.from('ipsonomo', (letter) => letter.charCodeAt(0));
const NOTHING = new Uint8Array(0);

/** Messages of the encapsulation protocol over a stream: one out, one back. */
export class Encapsulated {
  session = 0;
  private readonly inbox: Inbox;

  constructor(private readonly stream: TcpStream) {
    this.inbox = new Inbox(stream, encapsulationSize);
  }

  send(command: number, data: Uint8Array = NOTHING): void {
    const { session } = this;
    this.stream.write(
      encodeWith(encapsulation, { command, session, status: 0, context: CONTEXT, data }),
    );
  }

  /** @throws Broken where none comes, DecodeError where it is none */
  async reply(step: string): Promise<Encapsulation> {
    return decodeWith(encapsulation, await this.inbox.next(step));
  }
}
