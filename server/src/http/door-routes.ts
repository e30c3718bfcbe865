import { parseCookie, stringifySetCookie } from 'cookie';
import { json, Router, type Request, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { DoorView, NewKeyView } from '@ipsonomo/core';
import { isMachine } from '../common/machine';
import type { Door } from '../service/door';
import { Refusal } from '../store/refusal';
import { checked, idOf, personOf } from './door';
import * as schema from './schemas';

const HOLDS = 400 * 24 * 3600; // seconds: the longest that browsers keep a cookie (RFC 6265bis §5.5)
const MINUTE = 60_000;
const MOST_TRIES = 30;

/** Cookies are shared by all ports of a host: two servers on one machine do not take each other's. */
const cookieName = (request: Request): string => `ipsonomo-${request.socket.localPort ?? 0}`;

const secretOf = (request: Request): string | undefined =>
  parseCookie(request.headers.cookie ?? '')[cookieName(request)];

/** The browser that asks; undefined for the machine itself, and for whoever was not let in. */
export const browserIn = (door: Door, request: Request): string | undefined =>
  door.find(secretOf(request))?.id;

/** A hundred bits are not guessed; who tries all the same does not keep the server busy with it. */
const slowly = () =>
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

/** The one thing that answers those who were not let in. */
export function doorRoutes(door: Door): Router {
  const router = Router();
  router.get('/door', (request, response) => {
    const browser = browserIn(door, request);
    if (browser === undefined && !isMachine(request)) throw Refusal.of('door.locked', '');
    response.json({ isMachine: browser === undefined } satisfies DoorView);
  });
  router.post('/door', slowly(), json({ limit: '1kb' }), async (request, response) => {
    const { key } = checked(schema.doorKey, request.body);
    const secret = await door.enter(key, request.header('user-agent') ?? '');
    const value = stringifySetCookie({
      ...{ name: cookieName(request), value: secret, path: '/', maxAge: HOLDS },
      ...{ httpOnly: true, sameSite: 'strict' as const, secure: request.secure },
    });
    response.status(204).set('Set-Cookie', value).end();
  });
  return router;
}

/** Nobody else gets further: a browser with its cookie, and the machine's own person through its socket. */
export const onlyLetIn =
  (door: Door): RequestHandler =>
  (request, _response, next) => {
    if (isMachine(request)) return next();
    const browser = browserIn(door, request);
    if (browser === undefined) throw Refusal.of('door.locked', '');
    if (request.header('x-person') !== undefined) door.seen(browser, personOf(request).name);
    next();
  };

/** @param openAt addresses under which this server can be opened, each with the key */
export function keyRoutes(door: Door, openAt: (key: string) => readonly string[]): Router {
  const router = Router();
  router.get('/keys', (request, response) => {
    response.json(door.view(browserIn(door, request)));
  });
  router.post('/keys', async (request, response) => {
    const { key, endsAt } = await door.invite(personOf(request).name);
    const view: NewKeyView = { key, endsAt, addresses: openAt(key) };
    response.status(201).json(view);
  });
  router.delete('/keys/:key', async (request, response) => {
    await door.takeBack(idOf(request, 'key'));
    response.status(204).end();
  });
  return router;
}
