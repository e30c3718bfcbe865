import { must, parseMac } from '@ipsonomo/core/net';
import { indexOf, isUp, readAdapterFile } from './adapters';
import type { Borrowings } from './borrowed';
import type { Carrier, CarrierEvents, LinkState, TcpRequest, UdpQuestion } from '../carrier';
import { FrameReader } from './frame-reader';
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
  private reader: FrameReader | undefined;
  private ears: TaggedEars | undefined;
  private index: number;
  private link: LinkState;
  private readonly poll: NodeJS.Timeout;
  private readonly drainBuffer = Buffer.alloc(FRAME);

  constructor(
    private readonly adapter: string,
    private readonly borrowings: Borrowings,
    private readonly events: CarrierEvents,
    private readonly filter: Buffer = kernelFilter(),
  ) {
    this.source = `live:${adapter}`;
    this.open();
    this.mac = must(parseMac(readAdapterFile(adapter, 'address') ?? ''));
    this.index = indexOf(adapter);
    this.link = isUp(adapter) ? 'up' : 'down';
    events.link(this.link);
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
  }

  /** Refuses as `openPacketSocket` does. */
  private open(): void {
    this.ears = new TaggedEars(this.adapter);
    try {
      const fd = openPacketSocket(this.adapter, this.filter, BUFFER);
      this.fd = fd;
      this.reader = new FrameReader(fd, (frame) => {
        // Who asks alone is answered before anybody looks for others.
        this.events.frame(frame);
        this.together(() => this.drain(fd));
      });
    } catch (error) {
      this.deafen();
      throw error;
    }
  }

  private together(take: () => void): void {
    if (this.events.together) this.events.together(take);
    else take();
  }

  private drain(fd: number): void {
    for (let taken = 0; taken < 1024; taken += 1) {
      // Closed meanwhile, its number may be another's.
      if (this.fd !== fd) return;
      const count = libc().recv(fd, this.drainBuffer, FRAME, MSG_DONTWAIT);
      if (count <= 0) return;
      this.events.frame(Uint8Array.prototype.slice.call(this.drainBuffer, 0, count));
    }
  }

  private look(): void {
    const index = this.isSame() ? indexOf(this.adapter) : 0;
    if (index !== this.index) {
      this.index = index;
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
      this.open();
    } catch (error) {
      if (!(error instanceof FieldRefusal)) throw error;
      this.index = 0; // try again at the next look
    }
  }

  private deafen(): void {
    this.reader?.close();
    this.reader = undefined;
    this.fd = undefined;
    this.ears?.close();
    this.ears = undefined;
  }
}
