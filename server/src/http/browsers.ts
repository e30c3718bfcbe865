import { parseCookie } from 'cookie';
import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { isMachine } from '../common/machine';
import type { Actor } from '../service/actor';
import type { Door } from '../service/door';
import { Refusal } from '../store/refusal';
import { nameOf } from './door';

/** Cookies are shared by all ports of a host: two servers on one machine do not take each other's. */
export const cookieName = (request: Request): string => `ipsonomo-${request.socket.localPort ?? 0}`;

const secretOf = (request: Request): string | undefined =>
  parseCookie(request.headers.cookie ?? '')[cookieName(request)];

/** Who acts: the name they chose, and the browser they were let in with. */
export const actorIn =
  (door: Door) =>
  (request: Request): Actor => ({
    name: nameOf(request),
    browser: door.find(secretOf(request))?.id,
  });

/** Nobody else gets further: a browser with its cookie, and the machine's own person through its socket. */
export const onlyLetIn =
  (door: Door): RequestHandler =>
  (request, _response, next) => {
    if (isMachine(request)) return next();
    const { browser, name } = actorIn(door)(request);
    if (browser === undefined) throw Refusal.of('door.locked', '');
    if (request.header('x-person') !== undefined) door.seen(browser, name);
    next();
  };

const MINUTE = 60_000;
const MOST_TRIES = 30;

/** A hundred bits are not guessed; who tries all the same does not keep the server busy with it. */
export const slowly = (): RequestHandler =>
  rateLimit({
    windowMs: MINUTE,
    limit: MOST_TRIES,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    // Whoever came in through the machine's own socket has no address.
    keyGenerator: (request) => request.socket.remoteAddress ?? 'machine',
    handler: (_request, _response, next) =>
      next(Refusal.of('door.slow', '', { seconds: MINUTE / 1000 })),
  });
