import {
  cipReply,
  cipRequest,
  decodeWith,
  CONNECTION_MANAGER,
  encodeWith,
  ENIP_COMMAND,
  UNCONNECTED_SEND,
  unconnected,
  unconnectedSend,
  type CipReply,
  type CipRequest,
  type PortSegment,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { Encapsulated } from './encapsulated';
import { Broken } from '../talk/inbox';

const REPLY_SECONDS = 5;

/** One session of the automation protocol: a request, then its reply. */
export class CipTalk {
  private readonly wire: Encapsulated;

  constructor(stream: TcpStream) {
    this.wire = new Encapsulated(stream);
  }

  /** @throws Broken, DecodeError */
  async register(): Promise<void> {
    this.wire.send(ENIP_COMMAND.registerSession, Uint8Array.of(1, 0, 0, 0));
    const reply = await this.wire.reply('register');
    if (reply.status !== 0) throw new Broken('register', `status ${reply.status}`);
    this.wire.session = reply.session;
  }

  unregister(): void {
    this.wire.send(ENIP_COMMAND.unregisterSession);
  }

  /** A reply may be a refusal: its status says so. @throws Broken, DecodeError */
  async ask(step: string, request: CipRequest): Promise<CipReply> {
    const message = encodeWith(cipRequest, request);
    const sent = { timeout: REPLY_SECONDS, message };
    this.wire.send(ENIP_COMMAND.sendRrData, encodeWith(unconnected, sent));
    const reply = await this.wire.reply(step);
    if (reply.status !== 0) throw new Broken(step, `encapsulation status ${reply.status}`);
    return decodeWith(cipReply, decodeWith(unconnected, reply.data).message);
  }

  /** Asked of whoever is at the end of a route path. A reply may be a refusal on the way. @throws as `ask` does */
  askAlong(step: string, request: CipRequest, route: readonly PortSegment[]): Promise<CipReply> {
    return this.ask(step, {
      ...{ service: UNCONNECTED_SEND, path: CONNECTION_MANAGER },
      data: encodeWith(unconnectedSend, { request, route }),
    });
  }
}
