import { isIP } from 'node:net';
import { hostname as osHostname } from 'node:os';
import type { Request, RequestHandler } from 'express';
import { isMachine } from '../common/machine';
import { adaptersAbove, addressesOf, cameInThrough, indexOf } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';
import type { Wires } from '../service/wires';

/** The server's own address of a connection. */
const cameInBy = (request: Asked): string =>
  (request.socket.localAddress ?? '').replace(/^::ffff:/, '');

type Asked = Pick<Request, 'socket'>;

/**
 * Whether a connection came in through an adapter, or through a VLAN or bridge on top of it. A host takes what comes for
 * any of its addresses through any of its adapters (RFC 1122 §3.3.4.2, the weak model), so it is the adapter that
 * counts; the address does where the kernel does not tell the adapter.
 */
export function comesThrough(adapter: string, request: Asked): boolean {
  if (isMachine(request)) return false;
  const through = cameInThrough(request.socket);
  if (through !== undefined)
    return [adapter, ...adaptersAbove(adapter)].some((name) => indexOf(name) === through);
  const address = cameInBy(request);
  // Of one that has closed nobody can tell any more.
  return address === '' || addressesOf(adapter).includes(address);
}

/** The adapter that a connection came in through, where it is one that is listened on. */
export const throughLiveAdapter = (
  wires: Pick<Wires, 'liveAdapters'>,
  request: Asked,
): string | undefined => wires.liveAdapters().find((adapter) => comesThrough(adapter, request));

/** The live adapters never carry the web page: a plant's devices have no business with it. */
export const notThroughLiveAdapter =
  (wires: Pick<Wires, 'liveAdapters'>): RequestHandler =>
  (request, _response, next) => {
    const adapter = throughLiveAdapter(wires, request);
    if (adapter !== undefined) throw Refusal.of('wire.ownWeb', '', { adapter });
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
  if (isMachine(request) || isOwnName(request.headers.host ?? '')) return next();
  throw Refusal.of('wire.otherName', '', {
    host: String(request.headers.host ?? '').slice(0, 100),
  });
};

/** A page from elsewhere may not act here in a person's name: its Origin is not ours. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.header('origin');
  const site = request.header('sec-fetch-site');
  if (site !== undefined && !['same-origin', 'none'].includes(site))
    throw Refusal.of('body.invalid', 'origin', { unread: 'other-site' });
  if (request.method === 'GET' || origin === undefined) return next();
  if (URL.canParse(origin) && new URL(origin).host === request.header('host')) return next();
  throw Refusal.of('body.invalid', 'origin', { unread: 'other-site' });
};
