import { broadcastOf, containsAddress, prefixOf, type Ipv4, type Prefix } from '../net';
import type { RouteHost, RouteNet, RoutePort, Translation } from './net';
import { PrefixTable, type PrefixEntry } from './prefix-table';

/** Where a packet goes next: out at a port, to a neighbour, or to its destination where there is none between. */
export interface NextHop {
  readonly port: RoutePort;
  readonly via: Ipv4 | undefined;
  readonly by: 'connected' | 'static' | 'gateway';
}

/** A route or gateway that cannot be used: no port of the host is in the network of the neighbour. */
export interface DeadWay {
  readonly by: 'static' | 'gateway';
  readonly to: Prefix | undefined;
  readonly via: Ipv4;
  readonly port: RoutePort | undefined;
}

/** A translation, with the ports it works between. */
export interface PlacedTranslation {
  readonly translation: Translation;
  /** Where the translated are; what comes in elsewhere and asks for an outside address is sent to them. */
  readonly insidePort: RoutePort;
  /** What comes from them and leaves here is sent as an outside address. */
  readonly outsidePort: RoutePort;
}

/** A host with its routing table. That is made when it is first looked at: most hosts of a site never are. */
export class PreparedHost {
  private lines:
    { readonly table: PrefixTable<NextHop>; readonly dead: readonly DeadWay[] } | undefined;
  private places: readonly PlacedTranslation[] | undefined;

  constructor(readonly host: RouteHost) {}

  get table(): PrefixTable<NextHop> {
    return this.made.table;
  }

  get dead(): readonly DeadWay[] {
    return this.made.dead;
  }

  get translations(): readonly PlacedTranslation[] {
    const { forwards, translations } = this.host;
    if (!forwards || translations.length === 0) return NO_TRANSLATIONS;
    this.places ??= translations.flatMap((one) => placed(this.host, this.table, one) ?? []);
    return this.places;
  }

  has(address: Ipv4): boolean {
    return this.host.ports.some((port) => port.address === address);
  }

  /** By a mask of its own this is the broadcast address. */
  isBroadcast(address: Ipv4): boolean {
    return this.host.ports.some((port) => {
      const prefix = prefixOf(port.address, port.length);
      return containsAddress(prefix, address) && broadcastOf(prefix) === address;
    });
  }

  private get made() {
    this.lines ??= linesOf(this.host);
    return this.lines;
  }
}

const NO_TRANSLATIONS: readonly PlacedTranslation[] = [];

/** Who may answer ARP in one broadcast domain. */
export interface PreparedLink {
  readonly owners: ReadonlyMap<Ipv4, readonly Holder[]>;
  /** Routers that answer for others, or for the outside addresses of theirs. */
  readonly speakers: readonly Holder[];
}

export interface Holder {
  readonly host: PreparedHost;
  readonly port: RoutePort;
}

/** A site made ready for many questions. */
export class PreparedNet {
  readonly hosts: readonly PreparedHost[];
  private readonly byId: ReadonlyMap<string, PreparedHost>;
  private readonly links = new Map<string, PreparedLink>();
  private readonly byAddress = new Map<Ipv4, Holder[]>();

  constructor(net: RouteNet) {
    this.hosts = net.hosts.map((host) => new PreparedHost(host));
    this.byId = new Map(this.hosts.map((one) => [one.host.id, one]));
    const owners = new Map<string, Map<Ipv4, Holder[]>>();
    const speakers = new Map<string, Holder[]>();
    for (const host of this.hosts)
      for (const port of host.host.ports) {
        const there = owners.get(port.link) ?? new Map<Ipv4, Holder[]>();
        owners.set(port.link, there);
        const holder = { host, port };
        add(there, port.address, holder);
        add(this.byAddress, port.address, holder);
        const speaks =
          (host.host.answersForOthers && host.host.forwards) ||
          host.translations.some(({ outsidePort }) => outsidePort === port);
        if (speaks) add(speakers, port.link, holder);
      }
    for (const [link, there] of owners)
      this.links.set(link, { owners: there, speakers: speakers.get(link) ?? [] });
  }

  host(id: string): PreparedHost | undefined {
    return this.byId.get(id);
  }

  link(id: string): PreparedLink | undefined {
    return this.links.get(id);
  }

  /** Everybody with this address, on whatever link. */
  holders(address: Ipv4): readonly Holder[] {
    return this.byAddress.get(address) ?? [];
  }
}

function add<K>(map: Map<K, Holder[]>, key: K, holder: Holder): void {
  const list = map.get(key);
  if (list) list.push(holder);
  else map.set(key, [holder]);
}

const EVERYTHING = { network: 0, length: 0 } as Prefix;

function linesOf(host: RouteHost) {
  const dead: DeadWay[] = [];
  const entries: PrefixEntry<NextHop>[] = host.ports.map((port) => ({
    prefix: prefixOf(port.address, port.length),
    value: { port, via: undefined, by: 'connected' },
  }));
  const connected = host.routes.length > 0 ? new PrefixTable(entries.slice()) : undefined;
  for (const { to, via } of host.routes) {
    const port = connected?.find(via)?.port;
    if (port && isNeighbour(port, via))
      entries.push({ prefix: to, value: nextHop(host, port, via, 'static') });
    else dead.push({ by: 'static', to, via, port: undefined });
  }
  for (const port of host.ports) {
    const via = port.gateway;
    if (via === undefined) continue;
    if (isNeighbour(port, via))
      entries.push({ prefix: EVERYTHING, value: nextHop(host, port, via, 'gateway') });
    else dead.push({ by: 'gateway', to: undefined, via, port });
  }
  return { table: new PrefixTable(entries), dead };
}

/** Somebody a packet can be handed to: in the network, and not everybody in it (the kernel refuses such a gateway). */
function isNeighbour({ address, length }: RoutePort, via: Ipv4): boolean {
  const prefix = prefixOf(address, length);
  return containsAddress(prefix, via) && broadcastOf(prefix) !== via;
}

/** With an address of its own as gateway a host takes everybody for a neighbour (as Linux does). */
function nextHop({ ports }: RouteHost, port: RoutePort, via: Ipv4, by: NextHop['by']): NextHop {
  const self = ports.find(({ address }) => address === via);
  return self ? { port: self, via: undefined, by } : { port, via, by };
}

/** Inside is where its table sends the translated; outside is the port in the outside network, else the first other. */
function placed(
  { ports }: RouteHost,
  table: PrefixTable<NextHop>,
  translation: Translation,
): PlacedTranslation | undefined {
  const outside =
    translation.kind === 'one-to-one' ? translation.outside.network : translation.outside;
  const insidePort = table.find(translation.inside.network)?.port;
  const others = ports.filter((port) => port !== insidePort);
  const outsidePort =
    others.find((port) => containsAddress(prefixOf(port.address, port.length), outside)) ??
    others[0];
  return insidePort && outsidePort && { translation, insidePort, outsidePort };
}
