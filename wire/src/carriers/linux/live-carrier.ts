import { read, closeSync } from 'node:fs';
import { must, parseMac } from '@ipsonomo/core/net';
import { indexOf, isUp, readAdapterFile } from './adapters';
import type { Borrowings } from './borrowed';
import type { Carrier, CarrierEvents, LinkState, TcpRequest, UdpQuestion } from '../carrier';
import { kernelFilter } from './kernel-filter';
import { libc } from './libc';
import { openLiveTcp } from './live-tcp';
import { askLiveUdp } from './live-udp';
import { openPacketSocket } from './packet-socket';
import { FieldRefusal } from '../../protocol';
import { TaggedEars } from './tagged-ears';

const MSG_DONTWAIT = 0x40;
const BUFFER = 4 * 1024 * 1024;
const FRAME = 65536;
const POLL = 500;

/**
 * A real adapter. Survives the cable pulled and the adapter going away and coming back: a socket of
 * a removed adapter goes deaf without an error, so its index is looked at twice a second.
 */
export class LiveCarrier implements Carrier {
  readonly source: string;
  readonly mac;
  private fd: number | undefined;
  private ears: TaggedEars | undefined;
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
    this.fd = openPacketSocket(adapter, filter, BUFFER);
    this.ears = new TaggedEars(adapter);
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
  readonly askUdp = (question: UdpQuestion) => askLiveUdp(this.borrowings, this.adapter, question);

  close(): void {
    clearInterval(this.poll);
    this.deafen();
    this.fd = undefined; // the pending read ends within its timeout and closes the socket
  }

  /** Waits for one frame in the thread pool, then takes all that are there. */
  private wait(fd: number): void {
    read(fd, this.waitBuffer, 0, FRAME, null, (_error, count) => {
      if (this.fd !== fd) {
        closeSync(fd);
        return;
      }
      // Who asks alone is answered before anybody looks for others.
      if (count > 0) this.events.frame(Uint8Array.prototype.slice.call(this.waitBuffer, 0, count));
      if (count > 0) this.together(() => this.drain(fd));
      this.wait(fd);
    });
  }

  private together(take: () => void): void {
    if (this.events.together) this.events.together(take);
    else take();
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
      this.deafen();
      if (index !== 0) this.reopen();
    }
    for (const frame of this.ears?.take() ?? []) this.events.frame(frame);
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
      this.fd = openPacketSocket(this.adapter, this.filter, BUFFER);
      this.wait(this.fd);
      this.ears = new TaggedEars(this.adapter);
    } catch (error) {
      if (!(error instanceof FieldRefusal)) throw error;
      this.index = 0; // try again at the next look
    }
  }

  private deafen(): void {
    this.ears?.close();
    this.ears = undefined;
  }
}
