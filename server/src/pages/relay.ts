import {
  createServer,
  request as httpRequest,
  type IncomingHttpHeaders,
  type IncomingMessage,
  type OutgoingHttpHeaders,
  type Server,
  type ServerResponse,
} from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Duplex } from 'node:stream';

/** The page that is open, and a way to it. */
export interface RelayedPage {
  /** As a browser beside the device would write it: `192.168.77.10`. */
  readonly host: string;
  /** A new connection to it. */
  connect(): Duplex;
}

export interface RelayDoor {
  /** The page a person opened; undefined while none is. */
  page(): RelayedPage | undefined;
  /** Whether this connection came in where no page of ours may be. */
  isBarred(request: IncomingMessage): boolean;
}

const PATIENCE = 15_000;

/**
 * Hands the page of one device to the technician's browser. It has a port of its own, so that nothing on a
 * device's page can act as a page of Ipsonomo; it changes no byte of the page, only where it says it is.
 */
export class PageRelay {
  private readonly server: Server;

  /** @param patience milliseconds a device may take to answer */
  constructor(
    private readonly door: RelayDoor,
    private readonly patience = PATIENCE,
  ) {
    this.server = createServer((request, response) => this.serve(request, response));
  }

  /** Resolves with the port once it is open. @throws where the port is in use */
  listen(host: string, port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen({ host, port }, () => {
        this.server.off('error', reject);
        resolve((this.server.address() as AddressInfo).port);
      });
    });
  }

  close(): void {
    this.server.close();
    this.server.closeAllConnections();
  }

  private serve(request: IncomingMessage, response: ServerResponse): void {
    const page = this.door.page();
    if (this.door.isBarred(request)) return tell(response, 403, 'Not through this adapter', BARRED);
    if (!page) return tell(response, 503, 'No page is open', NONE);
    const ours = request.headers.host ?? '';
    const onward = httpRequest({
      ...{ method: request.method, path: request.url, createConnection: page.connect },
      headers: towards(request.headers, ours, page.host),
    });
    // The wire's streams know no time: a device that takes a connection and says nothing is silent.
    const patience = setTimeout(() => onward.destroy(new Error('silent')), this.patience);
    onward.once('close', () => clearTimeout(patience));
    onward.once('error', () => {
      if (response.headersSent) response.destroy();
      else tell(response, 502, 'The device does not answer', AWAY(page.host));
    });
    onward.once('response', (answer) => {
      clearTimeout(patience);
      response.writeHead(answer.statusCode ?? 502, back(answer.headers, ours, page.host));
      answer.pipe(response);
      answer.once('error', () => response.destroy());
    });
    response.once('close', () => onward.destroy());
    request.pipe(onward);
  }
}

/** What one end says about where a page is, as the other end knows it. */
const rewritten = (value: string, from: string, to: string): string =>
  value.replaceAll(`http://${from}`, `http://${to}`);

function towards(headers: IncomingHttpHeaders, ours: string, host: string): OutgoingHttpHeaders {
  const out: OutgoingHttpHeaders = { ...headers, host, connection: 'close' };
  for (const name of ['origin', 'referer'] as const) {
    const value = headers[name];
    if (value !== undefined) out[name] = rewritten(value, ours, host);
  }
  return out;
}

function back(headers: IncomingHttpHeaders, ours: string, host: string): OutgoingHttpHeaders {
  const out: OutgoingHttpHeaders = { ...headers };
  delete out['connection'];
  delete out['keep-alive'];
  const { location } = headers;
  if (location !== undefined) out['location'] = rewritten(location, host, ours);
  const cookies = headers['set-cookie'];
  if (cookies) out['set-cookie'] = cookies.map((one) => one.replace(/;\s*domain=[^;]*/i, ''));
  return out;
}

const BARRED = 'This page comes in through the adapter of the plant. Open it from another network.';
const NONE =
  'It was closed, because nobody read it or somebody fell silent. Open it again from the call of the device.';
const AWAY = (host: string) =>
  `It said nothing at ${host}. After "restart" or "apply" that is as it should be: it is on the way to its new address. Go back to the call, which goes on looking for it.`;

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

function tell(response: ServerResponse, status: number, title: string, words: string): void {
  response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' });
  response.end(
    `<!doctype html><meta name="viewport" content="width=device-width"><title>${escaped(title)}</title>` +
      `<body style="font:17px/1.5 sans-serif;max-width:34em;margin:3em auto;padding:0 1em">` +
      `<h1 style="font-size:27px">${escaped(title)}</h1><p>${escaped(words)}</p>`,
  );
}
