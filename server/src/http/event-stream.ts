import type { RequestHandler, Response } from 'express';

const MOST_UNREAD = 2_000_000;

/** Server-sent events (WHATWG HTML §9.2): what changed, told to every open page. */
export class EventStream {
  private readonly pages = new Set<Response>();
  private readonly beat = setInterval(() => this.write(': still here\n\n'), 15_000);

  /** The route that a page keeps open. It begins with the state the page needs. */
  readonly handler =
    (first: () => readonly (readonly [name: string, data: unknown])[]): RequestHandler =>
    (request, response) => {
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        Connection: 'keep-alive',
      });
      response.write('retry: 1000\n\n');
      for (const [name, data] of first()) response.write(message(name, data));
      this.pages.add(response);
      request.on('close', () => this.pages.delete(response));
    };

  send(name: string, data: unknown): void {
    if (this.pages.size > 0) this.write(message(name, data));
  }

  close(): void {
    clearInterval(this.beat);
    for (const page of this.pages) page.end();
    this.pages.clear();
  }

  private write(text: string): void {
    for (const page of this.pages) {
      // A page that no longer reads is let go; it comes back by itself and is told everything anew.
      if (page.writableLength > MOST_UNREAD) page.destroy();
      else page.write(text);
    }
  }
}

const message = (name: string, data: unknown): string =>
  `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;
