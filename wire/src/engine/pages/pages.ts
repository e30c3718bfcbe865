import type { Clock } from '@ipsonomo/core/clock';
import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { MessagePort } from 'node:worker_threads';
import type { TcpFailure, TcpStream } from '../../carriers/carrier';
import { voiceIn, type TalkEvents } from '../talk/patience';
import { FieldRefusal, type FieldTarget, type FieldTask, type OpenPage } from '../../protocol';
import type { Unit } from '../unit';

/** What goes over the port of one conversation: bytes, or why there are no more. */
export type PageBytes =
  Uint8Array | { readonly ended: TcpFailure | 'closed' } | { readonly taken: number };

interface Current extends OpenPage {
  /** Who answered there when it was opened. */
  mac: MacAddress | undefined;
  readonly target: FieldTarget;
  readonly subnetId: string;
  readonly port: number;
  until: number;
}

const TCP_TIMEOUT = 4000;
/** Bytes on their way to a browser that has not taken them yet. */
const MOST_UNDER_WAY = 256 * 1024;
/** A page nobody reads any more is closed. */
const IDLE = 10 * 60_000;

/**
 * R-PAGE-OPEN: the web page of one device, read through the wire from an address of Ipsonomo's in the subnet
 * the device is in. One page at a time, opened by a person, closed by itself when nobody reads it; only while
 * exactly one device answers at its address, and where a MAC is bound, that one.
 */
export class Pages implements Unit {
  private current: Current | undefined;
  /** Conversations with the page, each with what ends it at the browser. */
  private readonly streams = new Map<TcpStream, () => void>();

  constructor(
    private readonly events: TalkEvents,
    private readonly clock: Clock,
  ) {}

  get page(): OpenPage | undefined {
    return this.current;
  }

  /** Refuses with `page.none`, `page.nowhere`, `page.silent`, `page.several`, `page.other`. */
  async open(target: FieldTarget, person: string): Promise<void> {
    const { title, interfaceId, page: port } = target;
    if (port === undefined) throw FieldRefusal.of('page.none', { title });
    const address = this.events.whereIs(target);
    if (address === undefined) throw FieldRefusal.of('page.nowhere', { title });
    this.close();
    const subnetId = this.events.around(address).id;
    const until = this.clock.now() + IDLE;
    const current: Current = {
      interfaceId,
      target,
      address,
      subnetId,
      port,
      until,
      mac: undefined,
    };
    this.current = current;
    this.events.changed();
    try {
      const mac = await this.whoIsAt(subnetId, address, target);
      if (this.current !== current) throw FieldRefusal.of('field.stopped', { title });
      current.mac = mac;
      const at = formatIpv4(address);
      this.events.record('page-opened', { ...target, mac }, { at }, { person });
    } catch (error) {
      if (this.current === current) this.close();
      throw error;
    }
  }

  /** One connection of a browser, carried to the device. */
  async converse(wire: MessagePort): Promise<void> {
    const say = (what: PageBytes) => wire.postMessage(what);
    const end = (ended: TcpFailure | 'closed') => {
      say({ ended });
      wire.close();
    };
    const { current } = this;
    if (!current) return end('silent');
    current.until = this.clock.now() + IDLE;
    const waiting: Uint8Array[] = [];
    let stream: TcpStream | undefined;
    let underWay = 0;
    wire.on('message', (what: PageBytes) => {
      if (what instanceof Uint8Array) {
        if (stream) stream.write(what);
        else waiting.push(what);
      } else if ('taken' in what) {
        underWay -= what.taken;
        if (underWay < MOST_UNDER_WAY) stream?.resume();
      } else stream?.close();
    });
    const { subnetId, address: to, port } = current;
    const from = await voiceIn(this.events, subnetId);
    if (from === undefined) return end('silent');
    const opened = await this.events.open(subnetId, { from, to, port, timeout: TCP_TIMEOUT });
    if (typeof opened === 'string') return end(opened);
    if (this.current !== current) {
      opened.close();
      return end('closed');
    }
    stream = opened;
    this.streams.set(opened, () => end('closed'));
    opened.onData((data) => {
      underWay += data.length;
      if (underWay >= MOST_UNDER_WAY) opened.pause();
      say(data);
    });
    opened.onClose(() => {
      if (this.streams.delete(opened)) end('closed');
    });
    for (const bytes of waiting) opened.write(bytes);
  }

  close(): void {
    this.current = undefined;
    for (const [stream, end] of this.streams) {
      stream.close();
      end();
    }
    this.streams.clear();
    this.events.changed();
  }

  clear(): void {
    if (this.current) this.close();
  }

  tasks(): readonly FieldTask[] {
    if (!this.current) return [];
    return [{ kind: 'page', interfaceId: this.current.interfaceId, phase: 'open' }];
  }

  run(now: number): void {
    if (this.current && now >= this.current.until) this.close();
  }

  nextAt(): number {
    return this.current?.until ?? Infinity;
  }

  /** It has moved: there is no page any more where it was. */
  sighting(address: Ipv4, mac: MacAddress): void {
    if (this.current?.mac === mac && this.current.address !== address) this.close();
  }

  private async whoIsAt(subnetId: string, address: Ipv4, target: FieldTarget): Promise<MacAddress> {
    const at = formatIpv4(address);
    const { title } = target;
    const macs = await this.events.whoIsAt(subnetId, address);
    if (macs === 'no-voice') throw FieldRefusal.of('page.noVoice', { at });
    const [first] = macs;
    if (first === undefined) throw FieldRefusal.of('page.silent', { title, at });
    const found = [...macs].map(formatMac).join(', ');
    if (macs.size > 1) throw FieldRefusal.of('page.several', { at, count: macs.size, found });
    if (target.mac !== undefined && first !== target.mac)
      throw FieldRefusal.of('page.other', { title, at, found });
    return first;
  }
}
