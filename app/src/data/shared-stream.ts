import { BroadcastChannel, createLeaderElection, type LeaderElector } from 'broadcast-channel';
import type { StateView } from '@ipsonomo/contract';

// One stream a browser: its tabs choose one of them that has the server's stream, and hear from that one.

export interface News {
  /** `era-number`; a state that a stream begins with, and a beat, have none. */
  readonly id: string | undefined;
  readonly name: string;
  readonly data: unknown;
}

type Said = ({ readonly kind: 'news' } & News) | { readonly kind: 'away'; readonly since: number };

/** What there is of an EventSource. */
export interface Source {
  close(): void;
}

export interface SourceListener {
  news(news: News): void;
  /** @param isOver nothing tries again by itself */
  lost(isOver: boolean): void;
}

export interface Parts {
  /** Each time a new one, on which tabs of this browser hear each other. */
  readonly openChannel: () => BroadcastChannel<Said>;
  /** Opens the server's stream. @param since the last news that is known */
  readonly open: (since: string | undefined, listener: SourceListener) => Source;
  readonly readState: () => Promise<StateView>;
  /** When the server was heard by an earlier page; undefined where nobody knows. */
  readonly lastHeard?: () => number | undefined;
}

export interface StreamListener {
  news(name: string, data: unknown): void;
  /** What else this page has read may be old. */
  missed(): void;
  /** @param since when the server was last heard, undefined while it is there */
  away(since: number | undefined): void;
}

/** Two of these, and a tab knows that it is the only one. */
const RESPONSE = 250;
const FALLBACK = 2_000;
/** The server beats every 15 s. */
const SILENCE = 40_000;
const AGAIN = 3_000;

/** `a-7` and `a-8`: how many news lie between; undefined where they are of two servers. */
function distance(from: string | undefined, to: string): number | undefined {
  const [era, number] = to.split('-');
  const [before, last] = from?.split('-') ?? [];
  return era === before ? Number(number) - Number(last) : undefined;
}

export class SharedStream {
  private channel: BroadcastChannel<Said> | undefined;
  private elector: LeaderElector | undefined;
  private source: Source | undefined;
  private last: string | undefined;
  /** News that come while the state is read. */
  private waiting: News[] | undefined;
  private heardAt = Date.now();
  private isHeard = false;
  private watch: ReturnType<typeof setInterval> | undefined;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private isClosed = false;

  constructor(
    private readonly parts: Parts,
    private readonly listener: StreamListener,
  ) {}

  /** Whether this tab has the stream. */
  get isLeading(): boolean {
    return this.source !== undefined;
  }

  start(): void {
    this.watch = setInterval(() => this.look(), FALLBACK);
    void this.read();
    this.join();
  }

  /** The browser says that it has no network: what the page shows is old from now on, until it is heard again. */
  cut(): void {
    this.listener.away(this.since);
  }

  async close(): Promise<void> {
    this.isClosed = true;
    clearInterval(this.watch);
    clearTimeout(this.retry);
    this.source?.close();
    const { channel } = this;
    this.channel = undefined;
    await channel?.close();
  }

  private join(): void {
    const channel = this.parts.openChannel();
    channel.onmessage = (said) => this.hear(said);
    const elector = createLeaderElection(channel, {
      ...{ responseTime: RESPONSE, fallbackInterval: FALLBACK },
    });
    this.channel = channel;
    this.elector = elector;
    // Two tabs that were asleep may both think so; then they choose anew, on new channels: one has one election.
    elector.onduplicate = () => {
      if (this.elector !== elector) return;
      this.elector = undefined;
      this.channel = undefined;
      this.source?.close();
      this.source = undefined;
      void channel.close().then(() => (this.isClosed ? undefined : this.join()));
    };
    void elector.awaitLeadership().then(() => this.lead());
  }

  private lead(): void {
    if (this.isClosed || this.elector?.isLeader !== true) return;
    this.source?.close();
    this.source = this.parts.open(this.last, {
      news: (news) => {
        this.say({ kind: 'news', ...news });
        this.take(news);
      },
      lost: (isOver) => {
        const { since } = this;
        this.say({ kind: 'away', since });
        this.listener.away(since);
        if (isOver) this.again();
      },
    });
  }

  private say(said: Said): void {
    void this.channel?.postMessage(said);
  }

  private hearServer(): void {
    this.heardAt = Date.now();
    this.isHeard = true;
  }

  /** Since when what the page shows is old. */
  private get since(): number {
    return this.isHeard ? this.heardAt : (this.parts.lastHeard?.() ?? this.heardAt);
  }

  /** A stream that was refused is asked for again; why it was is told by the state, which is read as well. */
  private again(): void {
    clearTimeout(this.retry);
    this.retry = setTimeout(() => {
      void this.read();
      this.lead();
    }, AGAIN);
  }

  private hear(said: Said): void {
    // Whoever has the stream needs nobody else's word.
    if (this.source) return;
    if (said.kind === 'away') this.listener.away(said.since);
    else this.take(said);
  }

  private take(news: News): void {
    this.hearServer();
    this.listener.away(undefined);
    if (news.name === 'beat') return;
    if (this.waiting) {
      this.waiting.push(news);
      return;
    }
    if (news.name === 'hello') {
      this.last = news.id;
      if ((news.data as { readonly isWhole: boolean }).isWhole) this.listener.missed();
      return;
    }
    if (news.id === undefined) return this.listener.news(news.name, news.data);
    const steps = distance(this.last, news.id);
    if (steps !== undefined && steps <= 0) return;
    if (steps !== 1) return void this.readMissed();
    this.last = news.id;
    this.listener.news(news.name, news.data);
  }

  private async readMissed(): Promise<void> {
    if (await this.read()) this.listener.missed();
  }

  /** @returns whether the server answered */
  private async read(): Promise<boolean> {
    if (this.waiting) return false;
    this.waiting = [];
    const state = await this.parts.readState().catch(() => undefined);
    const waiting = this.waiting;
    this.waiting = undefined;
    if (this.isClosed) return false;
    if (state) {
      this.hearServer();
      this.last = state.id;
      for (const [name, data] of state.news) this.listener.news(name, data);
      this.listener.away(undefined);
    }
    for (const news of waiting) this.take(news);
    return state !== undefined;
  }

  /** A stream on which not even a beat comes is none: its tab sleeps, or the line is cut. */
  private look(): void {
    if (Date.now() - this.heardAt < SILENCE) return;
    const before = this.heardAt;
    void this.readMissed().then(() => {
      if (this.heardAt === before) this.listener.away(this.since);
      else if (this.source) this.lead();
    });
  }
}
