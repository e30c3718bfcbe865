import { randomBytes } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import { Refusal } from '../store/refusal';

/** Bytes that may wait for a page that does not read, beside the state it began with. */
const MOST_UNREAD = 250_000;
/** Streams at once: each browser needs one. */
const MOST_STREAMS = 2_000;
/** What was told last, for a page that was away for a moment. */
const MOST_KEPT = 1_000;
const MOST_KEPT_BYTES = 2_000_000;
const BEAT = 15_000;

type News = readonly [name: string, data: unknown];

interface Kept {
  readonly number: number;
  readonly text: Buffer;
}

interface Page {
  readonly browser: string | undefined;
  /** Bytes that may wait for it just now. */
  room: number;
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
  private readonly beat = setInterval(() => this.write(BEAT_TEXT), BEAT);

  /** @param first the state that a page begins with */
  constructor(private readonly first: () => readonly News[]) {}

  /**
   * The route that a browser keeps open. `since`, or the header Last-Event-ID, is the number it saw last.
   * @param browserOf which browser asks; undefined for the machine itself
   */
  readonly handler =
    (browserOf: (request: Request) => string | undefined): RequestHandler =>
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
      const page: Page = { browser: browserOf(request), room: MOST_UNREAD + begin.length };
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
    this.write(text);
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

  private write(text: Buffer): void {
    for (const [response, page] of this.pages) {
      // A page that no longer reads is let go; it comes back by itself and is told what it missed.
      if (response.writableLength > page.room) response.destroy();
      else response.write(text);
    }
  }
}

const RETRY = Buffer.from('retry: 1000\n\n');

const message = (name: string, data: unknown, id?: string): string =>
  `event: ${name}\n${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`;

/** Without it nobody could tell a wire on which nothing happens from a server that is gone. */
const BEAT_TEXT = Buffer.from(message('beat', null));
