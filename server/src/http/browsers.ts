import { parseCookie } from 'cookie';
import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { isMachine } from '../common/machine';
import type { Actor } from '../service/actor';
import type { Door } from '../service/door';
import type { People } from '../service/people';
import { Refusal } from '../store/refusal';
import { nameOf } from './door';

/** Cookies are shared by all ports of a host: two servers on one machine do not take each other's. */
export const cookieName = (request: Request): string => `ipsonomo-${request.socket.localPort ?? 0}`;

const secretOf = (request: Request): string | undefined =>
  parseCookie(request.headers.cookie ?? '')[cookieName(request)];

/** What a program brings (RFC 6750 §2.1). */
const tokenOf = (request: Request): string | undefined =>
  /^Bearer (\S{1,200})$/.exec(request.headers.authorization ?? '')?.[1];

/** Who acts: an account by its cookie or its token; the machine's own person by the name that they say. */
export const actorIn =
  (door: Door, people: People) =>
  (request: Request): Actor => {
    const token = tokenOf(request);
    const program = token === undefined ? undefined : people.ofToken(token);
    if (program)
      return {
        ...{ name: program.name, browser: program.id },
        account: { id: program.id, role: program.role },
      };
    const found = token === undefined ? door.find(secretOf(request)) : undefined;
    if (!found) return { name: nameOf(request), browser: undefined, account: undefined };
    const { id, role, name } = found.account;
    return { name: name || nameOf(request), browser: found.id, account: { id, role } };
  };

/** Nobody else gets further: a browser with its cookie, a program with its token, the machine's own person. */
export const onlyLetIn =
  (door: Door, people: People): RequestHandler =>
  (request, _response, next) => {
    if (isMachine(request)) return next();
    const { browser, account } = actorIn(door, people)(request);
    if (browser === undefined || account === undefined) throw Refusal.of('door.locked', '');
    if (browser !== account.id) door.seen(browser);
    next();
  };

/** Who decides something and has no name yet is called as they say from then on. */
export const namedIn =
  (door: Door, people: People) =>
  async (request: Request): Promise<void> => {
    const { account } = actorIn(door, people)(request);
    if (account && request.header('x-person') !== undefined)
      await people.nameFirst(account.id, nameOf(request));
  };

const MINUTE = 60_000;
const MOST_TRIES = 120;

/** A hundred bits are not guessed, a password might be; who tries all the same does not keep the server busy with it. */
export const slowly = (): RequestHandler =>
  rateLimit({
    windowMs: MINUTE,
    limit: MOST_TRIES,
    // Whoever comes in was not guessing: a crew behind one address does not wait for each other.
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    // Whoever came in through the machine's own socket has no address.
    keyGenerator: (request) => request.socket.remoteAddress ?? 'machine',
    handler: (_request, _response, next) =>
      next(Refusal.of('door.slow', '', { seconds: MINUTE / 1000 })),
  });
