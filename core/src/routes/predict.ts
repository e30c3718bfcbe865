import { containsAddress, prefixOf, type Ipv4 } from '../net';
import type { RoutePort } from './net';
import type { Holder, PreparedHost, PreparedNet } from './prepared';
import { walk, type Hop, type Stop, type Walk } from './walk';

type Direction = 'there' | 'back';

/** Why it does not work, at the host where it ends. Sentences are made of these at the edge. */
export type Reason =
  /** Its gateway is in none of its networks: it has nowhere to send it. */
  | { readonly code: 'gateway-outside'; readonly gateway: Ipv4; readonly port: RoutePort }
  | { readonly code: 'gateway-broadcast'; readonly gateway: Ipv4; readonly port: RoutePort }
  | { readonly code: 'gateway-missing' }
  /** It is its own gateway, so it asks for everybody by ARP. */
  | { readonly code: 'gateway-self'; readonly port: RoutePort }
  /** A neighbour, by its cable; its mask is too narrow to see that, and it has no way out. */
  | { readonly code: 'mask-narrow'; readonly port: RoutePort }
  /** It takes a far address for a neighbour and asks for it by ARP in vain. */
  | { readonly code: 'mask-wide'; readonly port: RoutePort }
  /** Nobody has the address of its gateway, or of the next router. */
  | { readonly code: 'gateway-nobody'; readonly gateway: Ipv4; readonly port: RoutePort }
  /** Whom it asks for is in another network of the switches: VLAN, or socket. */
  | {
      readonly code: 'other-link';
      readonly asked: Ipv4;
      readonly port: RoutePort;
      readonly is: Holder;
    }
  /** Nobody has the address that is asked for. */
  | { readonly code: 'nobody'; readonly asked: Ipv4; readonly port: RoutePort }
  /** A router that knows no way. */
  | { readonly code: 'no-route' }
  /** A route of it cannot be used: its neighbour is in none of its networks. */
  | { readonly code: 'route-outside'; readonly via: Ipv4 }
  /** It was sent to something that is no router. */
  | { readonly code: 'not-router'; readonly asked: Ipv4 }
  /** A controller whose rack passes on the automation protocol, and no IP. */
  | { readonly code: 'rack' }
  | { readonly code: 'broadcast'; readonly port: RoutePort }
  | { readonly code: 'loop'; readonly between: readonly PreparedHost[] }
  | { readonly code: 'doubled'; readonly asked: Ipv4; readonly answers: readonly Holder[] }
  /** The reply comes from another address than was asked: it was translated one way only. */
  | { readonly code: 'one-way'; readonly from: Ipv4; readonly asked: Ipv4 }
  /** Somebody else has it. */
  | { readonly code: 'other-host'; readonly meant: PreparedHost };

/** Something that works and will not always. */
export type Remark =
  /** Its mask is too wide; it works because a router answers for others. */
  | { readonly code: 'answered-for'; readonly hop: Hop; readonly by: PreparedHost }
  /** Its mask is too narrow; it works by way of the router. */
  | { readonly code: 'by-the-router'; readonly hop: Hop };

export type RouteVerdict =
  | { readonly works: true; readonly remarks: readonly Remark[] }
  | {
      readonly works: false;
      readonly direction: Direction;
      /** Where it ends. */
      readonly at: PreparedHost;
      readonly reason: Reason;
    };

export interface ThereAndBack {
  readonly there: Walk;
  /** Undefined where nothing arrived that could be answered. */
  readonly back: Walk | undefined;
  readonly verdict: RouteVerdict;
}

export interface Question {
  readonly from: PreparedHost;
  /** The address it is asked from; undefined for that of the port it leaves by. */
  readonly as?: Ipv4;
  readonly to: Ipv4;
  /** Who should answer; undefined for whoever does. */
  readonly meant?: PreparedHost | undefined;
}

/** R-THERE-AND-BACK: a question and its reply, hop by hop, and why it does not work where it does not. */
export function predict(net: PreparedNet, question: Question): ThereAndBack {
  const { from, as, to } = question;
  const there = walk(net, from, to, as, undefined);
  const { host, ends } = endOf(there);
  return judge(question, there, () => walk(net, host, ends.from, ends.to, there.memory));
}

/** What a walk there comes to, and the way back of whoever it reached. */
export function judge(
  { from, to, meant }: Question,
  there: Walk,
  wayBack: () => Walk,
): ThereAndBack {
  const end = endOf(there);
  const fails = (direction: Direction, at: PreparedHost, reason: Reason): RouteVerdict => ({
    ...{ works: false, direction, at, reason },
  });
  const wrong: Reason | undefined = there.stop
    ? reasonOf(there, there.stop)
    : meant && end.host !== meant
      ? { code: 'other-host', meant }
      : undefined;
  if (wrong) return { there, back: undefined, verdict: fails('there', end.host, wrong) };
  const back = wayBack();
  const home = endOf(back);
  const noReply: Reason | undefined = back.stop
    ? reasonOf(back, back.stop)
    : home.host !== from
      ? { code: 'other-host', meant: from }
      : home.ends.from !== to
        ? { code: 'one-way', from: home.ends.from, asked: to }
        : undefined;
  if (noReply) return { there, back, verdict: fails('back', home.host, noReply) };
  const remarks = [...remarksOf(there), ...remarksOf(back)];
  return { there, back, verdict: { works: true, remarks } };
}

function endOf({ hops }: Walk): Hop {
  const last = hops.at(-1);
  if (!last) throw new Error('a walk has a beginning');
  return last;
}

function reasonOf({ hops }: Walk, stop: Stop): Reason {
  const last = hops.at(-1);
  const before = hops.at(-2);
  if (!last) throw new Error('a walk has a beginning');
  const { host, ends } = last;
  switch (stop.why) {
    case 'no-route': {
      const [near] = stop.onLink;
      const [dead] = stop.dead;
      if (near) return { code: 'mask-narrow', port: near };
      if (dead?.by === 'gateway' && dead.port) {
        const isAll = containsAddress(prefixOf(dead.port.address, dead.port.length), dead.via);
        const code = isAll ? 'gateway-broadcast' : 'gateway-outside';
        return { code, gateway: dead.via, port: dead.port };
      }
      if (dead) return { code: 'route-outside', via: dead.via };
      return { code: host.host.forwards ? 'no-route' : 'gateway-missing' };
    }
    case 'no-answer':
      return noAnswer(stop);
    case 'doubled':
      return { code: 'doubled', asked: stop.asked, answers: stop.answers };
    case 'not-forwarding':
      return host.host.isRack
        ? { code: 'rack' }
        : { code: 'not-router', asked: before?.asked ?? ends.to };
    case 'broadcast': {
      const port = host.host.ports.find((one) => broadcastIs(one, ends.to)) ?? host.host.ports[0];
      if (!port) throw new Error('a host without a port has no broadcast address');
      return { code: 'broadcast', port };
    }
    case 'loop':
      return { code: 'loop', between: [...new Set(hops.slice(-4).map((hop) => hop.host))] };
  }
}

const broadcastIs = ({ address, length }: RoutePort, to: Ipv4): boolean =>
  containsAddress(prefixOf(address, length), to);

function noAnswer({ asked, way, elsewhere }: Extract<Stop, { why: 'no-answer' }>): Reason {
  const { port } = way;
  const [other] = elsewhere;
  if (way.by === 'connected') {
    if (!other) return { code: 'nobody', asked, port };
    // Where the other end takes the asker for a neighbour too, both agree, and a cable does not.
    const agrees = elsewhere.find((one) =>
      containsAddress(prefixOf(one.port.address, one.port.length), port.address),
    );
    return agrees ? { code: 'other-link', asked, port, is: agrees } : { code: 'mask-wide', port };
  }
  if (way.via === undefined) return { code: 'gateway-self', port };
  const router = elsewhere.find((one) => one.host.host.forwards);
  return router
    ? { code: 'other-link', asked, port, is: router }
    : { code: 'gateway-nobody', gateway: asked, port };
}

function remarksOf({ hops }: Walk): readonly Remark[] {
  const remarks: Remark[] = [];
  for (let at = 0; at + 1 < hops.length; at += 1) {
    const [hop, next, after] = [hops[at], hops[at + 1], hops[at + 2]];
    if (!hop || !next) continue;
    if (hop.proxied && hop.by === 'connected' && !isTranslated(next.host, hop))
      remarks.push({ code: 'answered-for', hop, by: next.host });
    // In and out at one port: the one it is for was a neighbour all along.
    else if (at === 0 && next.in && next.in === next.out && after?.in?.link === hop.out?.link)
      remarks.push({ code: 'by-the-router', hop });
  }
  return remarks;
}

/** Outside addresses are answered for by design. */
const isTranslated = ({ translations }: PreparedHost, { asked }: Hop): boolean =>
  translations.some(
    ({ translation }) =>
      translation.kind === 'one-to-one' &&
      asked !== undefined &&
      containsAddress(translation.outside, asked),
  );
