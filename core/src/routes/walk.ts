import { containsAddress, toIpv4, type Ipv4 } from '../net';
import type { RoutePort } from './net';
import type {
  DeadWay,
  Holder,
  PlacedTranslation,
  PreparedHost,
  PreparedLink,
  PreparedNet,
  NextHop,
} from './prepared';

/** What a packet says of itself. */
interface Ends {
  readonly from: Ipv4;
  readonly to: Ipv4;
}

/** A host a packet came to or began at, and how it went on from there. */
export interface Hop {
  readonly host: PreparedHost;
  /** Where it came in; undefined at the beginning. */
  readonly in: RoutePort | undefined;
  /** Where it left; undefined where it ends. */
  readonly out: RoutePort | undefined;
  /** Who was asked for by ARP. */
  readonly asked: Ipv4 | undefined;
  /** Who answered was not who has the address, but a router that answers for others. */
  readonly proxied: boolean;
  readonly by: NextHop['by'] | undefined;
  /** As it left, or as it arrived at the end. */
  readonly ends: Ends;
}

/** Why a packet gets no further. */
export type Stop =
  /**
   * No line of its table holds the destination. `dead` cannot be used: no port is in that network. `onLink`
   * are ports on whose links the destination is.
   */
  | {
      readonly why: 'no-route';
      readonly dead: readonly DeadWay[];
      readonly onLink: readonly RoutePort[];
    }
  /** Nobody on this link has what was asked for by ARP; `by` says whether it was its gateway. */
  | {
      readonly why: 'no-answer';
      readonly asked: Ipv4;
      readonly way: NextHop;
      /** Who has the address, on other links. */
      readonly elsewhere: readonly Holder[];
    }
  /** More than one answered ARP: which one gets it is luck. */
  | { readonly why: 'doubled'; readonly asked: Ipv4; readonly answers: readonly Holder[] }
  | { readonly why: 'not-forwarding' }
  /** By this host's mask the destination is the broadcast address. */
  | { readonly why: 'broadcast' }
  /** Time-to-live ran out. */
  | { readonly why: 'loop' };

export interface Walk {
  readonly hops: readonly Hop[];
  /** Undefined where it arrived. */
  readonly stop: Stop | undefined;
  /** What routers on the way remember of it, for the way back. */
  readonly memory: readonly Remembered[];
}

/** A router's memory of a packet it translated: what a reply says, and what that is turned into. */
interface Remembered {
  readonly host: PreparedHost;
  readonly reply: Ends;
  readonly becomes: Ends;
}

/** What hosts begin with (RFC 1122 §3.2.1.7 asks for a figure that reaches everywhere; 64 is usual). */
const TIME_TO_LIVE = 64;

/**
 * One packet from a host to an address, hop by hop: by the longest prefix of each host's own table, with ARP
 * at each link, and time-to-live.
 * @param from its source; undefined where the host takes the address of the port it leaves by
 * @param memory what routers remember of the way there, where this is the way back
 */
export function walk(
  net: PreparedNet,
  start: PreparedHost,
  to: Ipv4,
  from: Ipv4 | undefined,
  memory: readonly Remembered[] | undefined,
): Walk {
  const hops: Hop[] = [];
  const made: Remembered[] = [];
  const source = from ?? start.table.find(to)?.port.address ?? start.host.ports[0]?.address;
  let host = start;
  let came: RoutePort | undefined;
  let ends: Ends = { from: source ?? toIpv4(0), to };
  const end = (stop: Stop | undefined): Walk => {
    const nothing = { out: undefined, asked: undefined, proxied: false, by: undefined };
    hops.push({ host, in: came, ends, ...nothing });
    return { hops, stop, memory: made };
  };
  for (let left = TIME_TO_LIVE; ; left -= 1) {
    if (came) ends = turnedIn(host, came, ends, memory, made);
    if (host.has(ends.to)) return end(undefined);
    if (host.isBroadcast(ends.to)) return end({ why: 'broadcast' });
    if (came && !host.host.forwards) return end({ why: 'not-forwarding' });
    if (left === 0) return end({ why: 'loop' });
    const way = host.table.find(ends.to);
    if (!way) return end(noRoute(net, host, ends.to));
    const asked = way.via ?? ends.to;
    const link = net.link(way.port.link);
    const owners = ownersOf(link, host, asked);
    const answers = owners.length > 0 ? owners : speakersFor(link, host, asked);
    const [next] = answers;
    if (!next) return end(noAnswer(net, way, asked));
    if (answers.length > 1) return end({ why: 'doubled', asked, answers });
    if (came) ends = turnedOut(host, way.port, ends, memory, made);
    const proxied = answers !== owners;
    hops.push({ host, in: came, out: way.port, asked, proxied, by: way.by, ends });
    host = next.host;
    came = next.port;
  }
}

function noRoute(net: PreparedNet, host: PreparedHost, to: Ipv4): Stop {
  const onLink = host.host.ports.filter(({ link }) => net.link(link)?.owners.has(to));
  return { why: 'no-route', dead: deadFor(host, to), onLink };
}

function noAnswer(net: PreparedNet, way: NextHop, asked: Ipv4): Stop {
  const elsewhere = net.holders(asked).filter(({ port }) => port.link !== way.port.link);
  return { why: 'no-answer', asked, way, elsewhere };
}

const deadFor = ({ dead }: PreparedHost, to: Ipv4): readonly DeadWay[] =>
  dead.filter((one) => one.to === undefined || containsAddress(one.to, to));

/** Who has the address on this link, the asker excepted. */
function ownersOf(
  link: PreparedLink | undefined,
  asker: PreparedHost,
  asked: Ipv4,
): readonly Holder[] {
  const owners = link?.owners.get(asked) ?? NOBODY;
  return owners.some(({ host }) => host === asker)
    ? owners.filter(({ host }) => host !== asker)
    : owners;
}

/** Routers on this link that answer for others. */
const speakersFor = (
  link: PreparedLink | undefined,
  asker: PreparedHost,
  asked: Ipv4,
): readonly Holder[] =>
  link === undefined || link.speakers.length === 0
    ? NOBODY
    : link.speakers.filter(({ host, port }) => host !== asker && answersFor(host, port, asked));

const NOBODY: readonly Holder[] = [];

/** RFC 1027 §2.4: for whom it reaches through another port; and for outside addresses of its own. */
function answersFor(host: PreparedHost, port: RoutePort, asked: Ipv4): boolean {
  // Its outside addresses are as its own: answered for where they are, and nowhere else.
  const outside = host.translations.find((one) => isOutsideOf(one, asked));
  if (outside) return outside.outsidePort === port;
  if (!host.host.answersForOthers || host.has(asked)) return false;
  const way = host.table.find(asked);
  return way !== undefined && way.port !== port;
}

/** The same host in another block. */
const moved = (address: Ipv4, from: Ipv4, to: Ipv4): Ipv4 => toIpv4(address - from + to);

/** As it comes in: a reply that is remembered is turned back, a question to an outside address goes inside. */
function turnedIn(
  host: PreparedHost,
  port: RoutePort,
  ends: Ends,
  memory: readonly Remembered[] | undefined,
  made: Remembered[],
): Ends {
  if (host.translations.length === 0) return ends;
  if (memory) {
    const known = memory.find(
      (one) => one.host === host && one.reply.from === ends.from && one.reply.to === ends.to,
    );
    return known ? known.becomes : ends;
  }
  if (host.has(ends.to)) return ends;
  const placed = host.translations.find(
    (one) => one.insidePort !== port && isOutsideOf(one, ends.to),
  );
  if (placed?.translation.kind !== 'one-to-one') return ends;
  const { inside, outside } = placed.translation;
  const turned = { from: ends.from, to: moved(ends.to, outside.network, inside.network) };
  remember(made, host, turned, ends);
  return turned;
}

const isOutsideOf = ({ translation }: PlacedTranslation, address: Ipv4): boolean =>
  translation.kind === 'one-to-one' && containsAddress(translation.outside, address);

/** As it leaves outside: what comes from inside is sent as an outside address. */
function turnedOut(
  host: PreparedHost,
  out: RoutePort,
  ends: Ends,
  memory: readonly Remembered[] | undefined,
  made: Remembered[],
): Ends {
  if (memory || host.translations.length === 0) return ends;
  const placed = host.translations.find(
    ({ translation, outsidePort }) =>
      outsidePort === out && containsAddress(translation.inside, ends.from),
  );
  if (!placed) return ends;
  const { translation } = placed;
  const from =
    translation.kind === 'one-to-one'
      ? moved(ends.from, translation.inside.network, translation.outside.network)
      : translation.outside;
  const turned = { from, to: ends.to };
  remember(made, host, turned, ends);
  return turned;
}

/** A reply comes from whom it was sent to, to whom it was sent from; it is turned into the same of before. */
function remember(made: Remembered[], host: PreparedHost, sent: Ends, before: Ends): void {
  const known = made.find((one) => one.host === host && isReplyTo(one.reply, before));
  const first = known ? { from: known.becomes.to, to: known.becomes.from } : before;
  if (known) made.splice(made.indexOf(known), 1);
  made.push({
    host,
    reply: { from: sent.to, to: sent.from },
    becomes: { from: first.to, to: first.from },
  });
}

const isReplyTo = (reply: Ends, sent: Ends): boolean =>
  reply.from === sent.to && reply.to === sent.from;
