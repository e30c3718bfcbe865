import { containsAddress, prefixOf, type Ipv4, type Prefix, type PrefixLength } from '../net';
import type { RouteHost, RouteNet, RoutePort } from './net';
import { predict, type RouteVerdict, type ThereAndBack } from './predict';
import { PreparedNet, type PreparedHost } from './prepared';

/** One change of one host. */
export type Cure =
  | { readonly kind: 'gateway'; readonly host: string; readonly port: string; readonly to: Ipv4 }
  | {
      readonly kind: 'mask';
      readonly host: string;
      readonly port: string;
      readonly to: PrefixLength;
    }
  | { readonly kind: 'route'; readonly host: string; readonly to: Prefix; readonly via: Ipv4 };

interface CureFound {
  readonly cure: Cure;
  /** What it comes to then: it may fail further on, at something else. */
  readonly after: ThereAndBack;
}

interface Asked {
  readonly from: string;
  readonly to: Ipv4;
  readonly meant?: string | undefined;
}

/**
 * R-CURE: a change that was tried: each one that suits the reason is made in the site and the pair is walked
 * anew; the first that makes it work is proposed, else one that gets the packet further.
 */
export function findCure(net: RouteNet, asked: Asked): CureFound | undefined {
  const before = new PreparedNet(net);
  const told = answer(before, asked);
  if (!told || told.verdict.works) return undefined;
  let further: CureFound | undefined;
  for (const cure of candidates(before, told, told.verdict)) {
    const after = answer(new PreparedNet(withCure(net, cure)), asked);
    if (!after) continue;
    if (after.verdict.works) return { cure, after };
    if (told.verdict.direction === 'there' && after.verdict.direction === 'back')
      further ??= { cure, after };
  }
  return further;
}

function answer(net: PreparedNet, { from, to, meant }: Asked): ThereAndBack | undefined {
  const host = net.host(from);
  return (
    host &&
    predict(net, { from: host, to, meant: meant === undefined ? undefined : net.host(meant) })
  );
}

type Failed = Extract<RouteVerdict, { works: false }>;

function candidates(
  net: PreparedNet,
  { there, back }: ThereAndBack,
  { at, reason, direction }: Failed,
): readonly Cure[] {
  const walk = direction === 'there' ? there : back;
  const to = walk?.hops.at(-1)?.ends.to;
  switch (reason.code) {
    case 'gateway-missing':
      return at.host.ports.flatMap((port) => gateways(net, at, port));
    case 'gateway-outside':
    case 'gateway-broadcast':
    case 'gateway-nobody':
    case 'gateway-self':
      return gateways(net, at, reason.port);
    case 'not-router': {
      const before = walk?.hops.at(-2);
      const port = before?.out;
      return before && port && before.by === 'gateway' ? gateways(net, before.host, port) : [];
    }
    case 'mask-wide':
    case 'mask-narrow':
    case 'broadcast':
      return masks(net, at, reason.port);
    case 'no-route':
    case 'route-outside':
      return to === undefined ? [] : routes(net, at, to);
    case 'loop':
      return to === undefined ? [] : reason.between.flatMap((one) => routes(net, one, to));
    default:
      return [];
  }
}

/** Routers on the port's link that its own network, or the usual one there, holds. */
const gateways = (net: PreparedNet, { host }: PreparedHost, port: RoutePort): readonly Cure[] =>
  routersOn(net, port.link, host)
    .filter(({ address }) => containsAddress(prefixOf(port.address, port.length), address))
    .map(({ address }) => ({ kind: 'gateway', host: host.id, port: port.id, to: address }));

function routersOn(net: PreparedNet, link: string, except: RouteHost): readonly RoutePort[] {
  return net.hosts
    .filter(({ host }) => host.forwards && host !== except)
    .flatMap(({ host }) => host.ports.filter((port) => port.link === link));
}

/** The masks that others on this link have, the most usual first. */
function masks(net: PreparedNet, { host }: PreparedHost, port: RoutePort): readonly Cure[] {
  const counts = new Map<PrefixLength, number>();
  for (const other of net.hosts)
    for (const { link, length } of other.host.ports)
      if (link === port.link && other.host !== host)
        counts.set(length, (counts.get(length) ?? 0) + 1);
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .filter(([length]) => length !== port.length)
    .map(([to]) => ({ kind: 'mask', host: host.id, port: port.id, to }));
}

/** A line for the network of the destination, by way of each router beside this one. */
function routes(net: PreparedNet, { host }: PreparedHost, to: Ipv4): readonly Cure[] {
  const network = networkOf(net, to);
  if (!network) return [];
  return host.ports.flatMap((port) =>
    routersOn(net, port.link, host).map(({ address }): Cure => ({
      ...{ kind: 'route', host: host.id, to: network, via: address },
    })),
  );
}

/** The network most hosts near this address say it is in. */
function networkOf(net: PreparedNet, to: Ipv4): Prefix | undefined {
  const link = net.holders(to)[0]?.port.link;
  const lengths = new Map<PrefixLength, number>();
  for (const { host } of net.hosts)
    for (const port of host.ports)
      if (port.link === link) lengths.set(port.length, (lengths.get(port.length) ?? 0) + 1);
  const [most] = [...lengths].sort((a, b) => b[1] - a[1]);
  return most && prefixOf(to, most[0]);
}

/** The site after a change. A route takes the place of those to the same network, and stands first. */
function withCure({ hosts }: RouteNet, cure: Cure): RouteNet {
  const change = (host: RouteHost): RouteHost => {
    if (cure.kind === 'route') {
      const others = host.routes.filter(
        ({ to }) => to.network !== cure.to.network || to.length !== cure.to.length,
      );
      return { ...host, routes: [{ to: cure.to, via: cure.via }, ...others] };
    }
    const ports = host.ports.map((port) => {
      if (port.id !== cure.port) return port;
      return cure.kind === 'gateway' ? { ...port, gateway: cure.to } : { ...port, length: cure.to };
    });
    return { ...host, ports };
  };
  return { hosts: hosts.map((host) => (host.id === cure.host ? change(host) : host)) };
}
