import { randomBytes } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import { Refusal } from '../store/refusal';
import type { Actor } from '../service/actor';

/** Bytes that may wait for a page that does not read, beside the state it began with. */
const MOST_UNREAD = 250_000;
/** Streams at once: each browser needs one. */
const MOST_STREAMS = 2_000;
/** What was told last, for a page that was away for a moment. */
const MOST_KEPT = 1_000;
const MOST_KEPT_BYTES = 2_000_000;
const BEAT = 15_000;
/** So many pages are told in one go; with a thousand of them others would wait for their answers. */
const AT_ONCE = 100;

type News = readonly [name: string, data: unknown];

interface Kept {
  readonly number: number;
  readonly text: Buffer;
}

interface Page {
  readonly browser: string | undefined;
  /** Bytes that may wait for it just now. */
  room: number;
  /** The number of the last news that it was told. */
  told: number;
}

/**
 * Server-sent events (WHATWG HTML §9.2): what changed, told to every browser that keeps a stream open, each with its
 * number. A browser that comes back tells the number it saw last and is told what it missed; where that is no longer
 * known, or this server is another one, it begins with the whole state.
 */
export class EventStream {
  /** Numbers of another server mean nothing here. */
  private readonly era = randomBytes(6).toString('hex');
  private number = 0;
  private kept: Kept[] = [];
  private keptBytes = 0;
  private readonly pages = new Map<Response, Page>();
  private isDelivering = false;
  private readonly beat = setInterval(() => {
    this.inTurn((response, page) => this.write(response, page, BEAT_TEXT));
  }, BEAT);

  /** @param first the state that a page begins with */
  constructor(private readonly first: () => readonly News[]) {}

  /**
   * The route that a browser keeps open. `since`, or the header Last-Event-ID, is the number it saw last.
   * @param actorOf who asks
   */
  readonly handler =
    (actorOf: (request: Request) => Pick<Actor, 'browser'>): RequestHandler =>
    (request, response) => {
      if (this.pages.size >= MOST_STREAMS) throw Refusal.of('door.full', '');
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        Connection: 'keep-alive',
      });
      const begin = this.beginning(
        String(request.header('last-event-id') ?? request.query['since']),
      );
      const room = MOST_UNREAD + begin.length;
      const page: Page = { browser: actorOf(request).browser, room, told: this.number };
      response.write(begin);
      response.on('drain', () => (page.room = MOST_UNREAD));
      this.pages.set(response, page);
      request.on('close', () => this.pages.delete(response));
    };

  /** The whole state at once, with the number it is of: for a page whose browser has a stream already. */
  state(): { readonly id: string; readonly news: readonly News[] } {
    return { id: this.id(), news: this.first() };
  }

  send(name: string, data: unknown): void {
    this.number += 1;
    const text = Buffer.from(message(name, data, this.id()));
    this.keep({ number: this.number, text });
    this.deliver();
  }

  /** Ends what a browser has open. */
  closeOf(browser: string): void {
    for (const [response, page] of this.pages) if (page.browser === browser) response.end();
  }

  close(): void {
    clearInterval(this.beat);
    for (const response of this.pages.keys()) response.end();
    this.pages.clear();
  }

  private id = (): string => `${this.era}-${this.number}`;

  private beginning(since: string): Buffer {
    const [era, number] = since.split('-');
    const last = Number(number);
    const isKnown =
      era === this.era &&
      last <= this.number &&
      (this.kept[0]?.number ?? this.number + 1) <= last + 1;
    const missed = isKnown ? this.kept.filter((one) => one.number > last) : [];
    const all = isKnown ? [] : this.first();
    const texts = all.map(([name, data]) => Buffer.from(message(name, data)));
    const hello = Buffer.from(message('hello', { isWhole: !isKnown }, isKnown ? since : this.id()));
    return Buffer.concat([RETRY, ...texts, hello, ...missed.map(({ text }) => text)]);
  }

  private keep(one: Kept): void {
    this.kept.push(one);
    this.keptBytes += one.text.length;
    const isTooMuch = () => this.kept.length > MOST_KEPT || this.keptBytes > MOST_KEPT_BYTES;
    while (this.kept.length > 0 && isTooMuch())
      this.keptBytes -= this.kept.shift()?.text.length ?? 0;
  }

  /** Tells every page what it was not told yet; what comes while that goes on is told in another round. */
  private deliver(): void {
    if (this.isDelivering) return;
    this.isDelivering = true;
    const upTo = this.number;
    this.inTurn(
      (response, page) => this.tell(response, page),
      () => {
        this.isDelivering = false;
        if (this.number > upTo) this.deliver();
      },
    );
  }

  private tell(response: Response, page: Page): void {
    const missed = this.number - page.told;
    if (missed === 0) return;
    page.told = this.number;
    // Further behind than what is kept: it comes back by itself and begins with the whole state.
    if (missed > this.kept.length) response.destroy();
    else this.write(response, page, joined(this.kept.slice(-missed)));
  }

  /** A page that no longer reads is let go; it comes back by itself and is told what it missed. */
  private write(response: Response, page: Page, text: Buffer): void {
    if (response.writableLength > page.room) response.destroy();
    else response.write(text);
  }

  /** Some pages at once, the next when whoever waits for something else had a turn. */
  private inTurn(act: (response: Response, page: Page) => void, done?: () => void): void {
    const all = [...this.pages];
    const next = (from: number): void => {
      for (const [response, page] of all.slice(from, from + AT_ONCE)) act(response, page);
      if (from + AT_ONCE < all.length) setImmediate(() => next(from + AT_ONCE));
      else done?.();
    };
    next(0);
  }
}

const joined = (news: readonly Kept[]): Buffer => {
  const [first, ...others] = news.map(({ text }) => text);
  return first && others.length === 0 ? first : Buffer.concat(news.map(({ text }) => text));
};

const RETRY = Buffer.from('retry: 1000\n\n');

const message = (name: string, data: unknown, id?: string): string =>
  `event: ${name}\n${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`;

/** Without it nobody could tell a wire on which nothing happens from a server that is gone. */
const BEAT_TEXT = Buffer.from(message('beat', null));
