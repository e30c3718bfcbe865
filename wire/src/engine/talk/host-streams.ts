import type { Clock } from '@ipsonomo/core/clock';
import type { HostInput, HostNews } from '@ipsonomo/core/host';
import type { Ipv4 } from '@ipsonomo/core/net';
import type { TcpFailure, TcpRequest, TcpStream, UdpQuestion } from '../../carriers/carrier';

interface Open {
  readonly subnetId: string;
  settle: ((result: TcpStream | TcpFailure) => void) | undefined;
  onData: (data: Uint8Array) => void;
  onClose: () => void;
  /** What came while it was paused; undefined while it is not. */
  held: Uint8Array[] | undefined;
}

/** More than this nobody reads for whom it could be held. */
const MOST_HELD = 4 * 1024 * 1024;

interface Asked {
  readonly to: Ipv4;
  readonly settle: (answer: Uint8Array | TcpFailure) => void;
}

/** Ports that nobody else has (RFC 6335 §6), one after the other. */
const PORTS = { first: 49_152, count: 16_384 } as const;

/** Conversations held by our own host on the wire's frames: the practice site's way. */
export class HostStreams {
  private readonly conversations = new Map<string, Open>();
  /** Datagrams that wait for an answer, by the port they left from. */
  private readonly asked = new Map<number, Asked>();
  private count = 0;

  constructor(
    private readonly clock: Clock,
    private readonly step: (subnetId: string, input: HostInput) => void,
  ) {}

  open(subnetId: string, request: TcpRequest): Promise<TcpStream | TcpFailure> {
    this.count += 1;
    const id = `stream-${this.count}`;
    return new Promise((resolve) => {
      const callOff = this.clock.after(request.timeout, () => this.settle(id, 'silent'));
      this.conversations.set(id, {
        subnetId,
        settle: (result) => {
          callOff();
          resolve(result);
        },
        onData: () => undefined,
        onClose: () => undefined,
        held: undefined,
      });
      this.step(subnetId, { kind: 'connect', id, to: request.to, port: request.port });
    });
  }

  ask(subnetId: string, question: UdpQuestion): Promise<Uint8Array | TcpFailure> {
    this.count += 1;
    const { to, port, data, timeout } = question;
    const fromPort = PORTS.first + (this.count % PORTS.count);
    return new Promise((resolve) => {
      const settle = (answer: Uint8Array | TcpFailure) => {
        callOff();
        this.asked.delete(fromPort);
        resolve(answer);
      };
      const callOff = this.clock.after(timeout, () => settle('silent'));
      this.asked.set(fromPort, { to, settle });
      this.step(subnetId, { kind: 'send-udp', to, fromPort, toPort: port, payload: data });
    });
  }

  news(news: HostNews): void {
    if (news.kind === 'udp') {
      const one = this.asked.get(news.toPort);
      // An answer may come from another port than the one that was asked.
      if (one?.to === news.from) one.settle(news.payload.slice());
    }
    if (!('id' in news)) return;
    const stream = this.conversations.get(news.id);
    if (!stream) return;
    if (news.kind === 'opened') this.settle(news.id, this.streamOf(news.id, stream));
    else if (news.kind === 'refused') this.settle(news.id, 'refused');
    else if (news.kind === 'received') this.received(news.id, stream, news.data);
    else if (news.kind === 'closed') {
      this.conversations.delete(news.id);
      stream.onClose();
    }
  }

  clear(): void {
    for (const one of this.asked.values()) one.settle('silent');
    for (const [id, stream] of this.conversations) {
      this.settle(id, 'silent');
      stream.onClose();
    }
    this.conversations.clear();
  }

  private received(id: string, stream: Open, data: Uint8Array): void {
    if (!stream.held) return stream.onData(data);
    stream.held.push(data.slice());
    const held = stream.held.reduce((sum, { length }) => sum + length, 0);
    if (held > MOST_HELD) this.step(stream.subnetId, { kind: 'close', id });
  }

  private settle(id: string, result: TcpStream | TcpFailure): void {
    const stream = this.conversations.get(id);
    const settle = stream?.settle;
    if (!stream || !settle) return;
    stream.settle = undefined;
    if (typeof result === 'string') this.conversations.delete(id);
    settle(result);
  }

  private streamOf(id: string, stream: Open): TcpStream {
    return {
      clock: this.clock,
      write: (data) => this.step(stream.subnetId, { kind: 'write', id, data }),
      close: () => this.step(stream.subnetId, { kind: 'close', id }),
      onData: (take) => {
        stream.onData = take;
      },
      onClose: (done) => {
        stream.onClose = done;
      },
      pause: () => void (stream.held ??= []),
      resume: () => {
        const held = stream.held ?? [];
        stream.held = undefined;
        held.forEach((data) => stream.onData(data));
      },
    };
  }
}
