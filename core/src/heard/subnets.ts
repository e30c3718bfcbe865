import {
  containsAddress,
  formatPrefix,
  lengthOfMask,
  prefixOf,
  toPrefixLength,
  type Ipv4,
  type Prefix,
} from '../net';
import type { HeardStation } from './station';

/** A network that stations are in. */
export interface HeardSubnet {
  readonly prefix: Prefix;
  /** `said`: a DHCP server or a station named its mask; `guessed`: nobody did, and a /24 is taken. */
  readonly by: 'said' | 'guessed';
  /** As most of them said; undefined where none did. */
  readonly gateway: Ipv4 | undefined;
  /** As all tagged frames from it had it. */
  readonly vlan: number | undefined;
  /** Who gives addresses in it. */
  readonly dhcpServers: readonly Ipv4[];
  readonly addresses: readonly Ipv4[];
}

const USUAL = toPrefixLength(24);
/** A mask this wide or this narrow says of a host, or of everything, and is no subnet. */
const LENGTHS = { least: 8, most: 30 } as const;

/** The networks of all addresses that were heard: each in the one that was said of it, or of its neighbours. */
export function subnetsHeard(stations: readonly HeardStation[]): readonly HeardSubnet[] {
  const said = saidPrefixes(stations);
  const found = new Map<string, { prefix: Prefix; by: HeardSubnet['by']; of: Member[] }>();
  for (const station of stations)
    for (const address of station.addresses) {
      const own = ownPrefix(station, address) ?? said.find((one) => containsAddress(one, address));
      const prefix = own ?? prefixOf(address, USUAL);
      const key = formatPrefix(prefix);
      const known = found.get(key) ?? { prefix, by: own ? 'said' : 'guessed', of: [] };
      known.of.push({ station, address });
      found.set(key, known);
    }
  return [...found.values()]
    .sort((a, b) => a.prefix.network - b.prefix.network)
    .map(({ prefix, by, of }) => ({
      ...{ prefix, by },
      gateway: mostOften(
        of.flatMap(({ station, address }) => station.networks.get(address)?.gateway ?? []),
      ),
      vlan: onlyOne(of.flatMap(({ station: { vlan } }) => vlan ?? [])),
      dhcpServers: of.filter(({ station }) => station.servesDhcp).map(({ address }) => address),
      addresses: [...new Set(of.map(({ address }) => address))],
    }));
}

interface Member {
  readonly station: HeardStation;
  readonly address: Ipv4;
}

function ownPrefix({ networks }: HeardStation, address: Ipv4): Prefix | undefined {
  const said = networks.get(address);
  const length = said && lengthOfMask(said.mask);
  return length === undefined || length < LENGTHS.least || length > LENGTHS.most
    ? undefined
    : prefixOf(address, length);
}

/** The narrowest first: what is said of a part counts there. */
function saidPrefixes(stations: readonly HeardStation[]): readonly Prefix[] {
  const all = new Map<string, Prefix>();
  for (const station of stations)
    for (const address of station.networks.keys()) {
      const prefix = ownPrefix(station, address);
      if (prefix) all.set(formatPrefix(prefix), prefix);
    }
  return [...all.values()].sort((a, b) => b.length - a.length);
}

function mostOften<T>(all: readonly T[]): T | undefined {
  const counts = new Map<T, number>();
  for (const one of all) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}

const onlyOne = <T>(all: readonly T[]): T | undefined =>
  new Set(all).size === 1 ? all[0] : undefined;
