import { randomBytes, timingSafeEqual } from 'node:crypto';
import {
  request as httpRequest,
  type IncomingMessage,
  type Server,
  type ServerResponse,
} from 'node:http';
import type { AddressInfo } from 'node:net';
import { schemeOf, webServer, type Certificate } from '../tls/encrypted';
import { noteAdapters } from '@ipsonomo/wire';
import { CookieJar } from './cookie-jar';
import { leadsAway, towardsBrowser, towardsDevice, type Ends } from './headers';
import type { RelayDoor, RelayedPage } from './relayed-page';
import {
  away,
  BARRED,
  leadsElsewhere,
  NO_PAGE,
  NOT_LET_IN,
  NOT_PASSED_ON,
  tell,
  TOO_MANY,
  unreadable,
} from './told';

const KEY_PARAMETER = 'ipsonomo-key';
/** A browser has six connections to a host; devices have fewer. */
const MOST_AT_ONCE = 16;
const MOST_CONNECTIONS = 64;

/**
 * One opening of the page of one device: an origin of its own, and a key that only the browser has that opened it. What
 * the device sets or asks for ends with it.
 */
export class Opening {
  private readonly key = randomBytes(24).toString('base64url');
  private readonly jar = new CookieJar();
  private readonly server: Server;
  private underWay = 0;

  /** @param patience milliseconds a device may take to answer */
  constructor(
    private readonly door: RelayDoor,
    private readonly patience: number,
    private readonly certificate: Certificate | undefined,
  ) {
    this.server = webServer(certificate, {}, (request, response) => {
      try {
        this.serve(request, response);
      } catch {
        // Node refuses to pass some requests on by throwing: paths and headers that are none.
        tell(response, NOT_PASSED_ON);
      }
    });
    noteAdapters(this.server);
    this.server.maxConnections = MOST_CONNECTIONS;
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

  /** What the browser goes to first; it is then known by a cookie that no script can read. */
  get path(): string {
    return `/?${KEY_PARAMETER}=${this.key}`;
  }

  close(): void {
    this.server.close();
    this.server.closeAllConnections();
  }

  private serve(request: IncomingMessage, response: ServerResponse): void {
    if (this.door.isBarred(request)) return tell(response, BARRED);
    if (this.letIn(request, response)) return;
    if (!this.isLetIn(request)) return tell(response, NOT_LET_IN);
    // It would outlive this opening, and stand between the browser and the next device.
    if (request.headers['service-worker'] !== undefined) return tell(response, NOT_PASSED_ON);
    const page = this.door.page();
    if (!page) return tell(response, NO_PAGE);
    if (this.underWay >= MOST_AT_ONCE) return tell(response, TOO_MANY);
    this.handOn(request, response, page);
  }

  private handOn(request: IncomingMessage, response: ServerResponse, page: RelayedPage): void {
    const ours = `${schemeOf(this.certificate)}://${request.headers.host ?? ''}`;
    const ends: Ends = { ours, host: page.host };
    const onward = httpRequest({
      ...{ method: request.method, path: request.url, createConnection: page.connect },
      headers: towardsDevice(request.headers, ends, this.jar.header),
    });
    this.underWay += 1;
    // The wire's streams know no time: a device that takes a connection and says nothing is silent.
    const patience = setTimeout(() => onward.destroy(new Error('silent')), this.patience);
    onward.once('close', () => {
      clearTimeout(patience);
      this.underWay -= 1;
    });
    onward.on('error', (error: NodeJS.ErrnoException) =>
      tell(response, error.code?.startsWith('HPE_') ? unreadable(page.host) : away(page.host)),
    );
    onward.once('response', (answer) => {
      clearTimeout(patience);
      this.answer(answer, response, ends);
    });
    // Another protocol on the same connection is no page.
    onward.once('upgrade', (_answer, socket) => {
      socket.destroy();
      tell(response, unreadable(page.host));
    });
    response.once('close', () => onward.destroy());
    request.on('error', () => onward.destroy());
    request.pipe(onward);
  }

  private answer(answer: IncomingMessage, response: ServerResponse, ends: Ends): void {
    answer.on('error', () => response.destroy());
    this.jar.take(answer.headers['set-cookie']);
    const elsewhere = leadsAway(answer.headers, ends.host);
    if (elsewhere !== undefined) {
      answer.destroy();
      return tell(response, leadsElsewhere(ends.host, elsewhere));
    }
    try {
      response.writeHead(answer.statusCode ?? 0, towardsBrowser(answer.headers, ends));
    } catch {
      // A status that is none, or a header that may not be said.
      answer.destroy();
      return tell(response, unreadable(ends.host));
    }
    answer.pipe(response);
  }

  /** The first request brings the key, and is sent on without it. */
  private letIn(request: IncomingMessage, response: ServerResponse): boolean {
    const url = new URL(request.url ?? '/', 'http://page');
    const key = url.searchParams.get(KEY_PARAMETER);
    if (key === null) return false;
    if (!this.isKey(key)) {
      tell(response, NOT_LET_IN);
      return true;
    }
    const secure = this.certificate === undefined ? '' : '; Secure';
    const cookie = `${this.cookieName}=${this.key}; Path=/; HttpOnly; SameSite=Strict${secure}`;
    const headers = { 'set-cookie': cookie, location: '/', 'cache-control': 'no-store' };
    response.writeHead(303, { ...headers, 'referrer-policy': 'no-referrer' }).end();
    return true;
  }

  private isLetIn(request: IncomingMessage): boolean {
    const pairs = (request.headers.cookie ?? '').split(';').map((pair) => pair.trim());
    const own = pairs.find((pair) => pair.startsWith(`${this.cookieName}=`));
    return own !== undefined && this.isKey(own.slice(this.cookieName.length + 1));
  }

  /** Cookies know no ports: each opening has one of its own name. */
  private get cookieName(): string {
    return `ipsonomo-page-${(this.server.address() as AddressInfo | null)?.port ?? 0}`;
  }

  private isKey(given: string): boolean {
    const [one, other] = [Buffer.from(given), Buffer.from(this.key)];
    return one.length === other.length && timingSafeEqual(one, other);
  }
}
