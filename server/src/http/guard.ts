import { isIP } from 'node:net';
import { hostname as osHostname } from 'node:os';
import type { Request, RequestHandler } from 'express';
import { Refusal } from '../store/refusal';
import type { FieldService } from '../service/field-service';

/** The server's own address of a connection. */
export const cameInBy = (request: Pick<Request, 'socket'>): string =>
  (request.socket.localAddress ?? '').replace(/^::ffff:/, '');

/** Whether a connection came in through the adapter that is listened on. */
export const isThroughLiveAdapter = (
  field: FieldService,
  request: Pick<Request, 'socket'>,
): boolean => field.liveAdapter()?.addresses.includes(cameInBy(request)) === true;

/** The live adapter never carries the web page: a plant's devices have no business with it. */
export const notThroughLiveAdapter =
  (field: FieldService): RequestHandler =>
  (request, _response, next) => {
    if (isThroughLiveAdapter(field, request))
      throw Refusal.of('wire.ownWeb', '', { adapter: field.liveAdapter()?.name ?? '' });
    next();
  };

/** Names under which nobody else can be made to lead here; an address cannot be made to lead anywhere else. */
const isOwnName = (host: string): boolean => {
  if (!URL.canParse(`http://${host}`)) return false;
  const { hostname } = new URL(`http://${host}`);
  const own = [osHostname(), `${osHostname()}.local`].map((name) => name.toLowerCase());
  const bare = hostname.replace(/^\[|\]$/g, '');
  return isIP(bare) !== 0 || hostname === 'localhost' || own.includes(hostname);
};

/**
 * A name of somebody else's that was made to lead here (DNS rebinding) is told nothing. Over a Unix socket the one in
 * front of it has to know its own name.
 */
export const underOwnName: RequestHandler = (request, _response, next) => {
  const isSocket = request.socket.remoteAddress === undefined;
  if (isSocket || isOwnName(request.headers.host ?? '')) return next();
  throw Refusal.of('wire.otherName', '', {
    host: String(request.headers.host ?? '').slice(0, 100),
  });
};

/** A page from elsewhere may not act here in a person's name: its Origin is not ours. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.header('origin');
  const site = request.header('sec-fetch-site');
  if (site !== undefined && !['same-origin', 'none'].includes(site))
    throw Refusal.of('body.invalid', 'origin', { why: 'is another site' });
  if (request.method === 'GET' || origin === undefined) return next();
  if (URL.canParse(origin) && new URL(origin).host === request.header('host')) return next();
  throw Refusal.of('body.invalid', 'origin', { why: 'is another site' });
};
