import { containsAddress, overlaps, parsePrefix, type Prefix } from './prefix';
import { must } from './result';
import type { Ipv4 } from './ipv4';

/** One row of the registry of special-purpose blocks. */
interface SpecialBlock {
  readonly prefix: Prefix;
  readonly name: string;
  readonly source: string;
  /** May a device in a plan have such an address without a question? */
  readonly use: 'free' | 'doubtful' | 'never';
}

type Row = readonly [cidr: string, name: string, source: string, use: SpecialBlock['use']];

/**
 * R-SPECIAL: RFC 6890 §2.2.2 as updated by RFC 8190, with the multicast blocks of RFC 5771 §3, under the names
 * of the registries (those younger than the RFCs from memory).
 * `never` where the block cannot be the address of a device's interface at all.
 */
const rows: readonly Row[] = [
  ['0.0.0.0/8', 'This network', 'RFC 1122 §3.2.1.3', 'never'],
  ['10.0.0.0/8', 'Private-Use', 'RFC 1918', 'free'],
  ['100.64.0.0/10', 'Shared Address Space', 'RFC 6598', 'doubtful'],
  ['127.0.0.0/8', 'Loopback', 'RFC 1122 §3.2.1.3', 'never'],
  ['169.254.0.0/16', 'Link Local', 'RFC 3927', 'doubtful'],
  ['172.16.0.0/12', 'Private-Use', 'RFC 1918', 'free'],
  ['192.0.0.0/24', 'IETF Protocol Assignments', 'RFC 6890 §2.1', 'doubtful'],
  ['192.0.0.0/29', 'IPv4 Service Continuity Prefix', 'RFC 7335', 'doubtful'],
  ['192.0.0.8/32', 'IPv4 dummy address', 'RFC 7600', 'never'],
  ['192.0.0.9/32', 'Port Control Protocol Anycast', 'RFC 7723', 'doubtful'],
  ['192.0.0.10/32', 'Traversal Using Relays around NAT Anycast', 'RFC 8155', 'doubtful'],
  ['192.0.0.170/32', 'NAT64/DNS64 Discovery', 'RFC 7050 §2.2', 'never'],
  ['192.0.0.171/32', 'NAT64/DNS64 Discovery', 'RFC 7050 §2.2', 'never'],
  ['192.0.2.0/24', 'Documentation (TEST-NET-1)', 'RFC 5737', 'doubtful'],
  ['192.31.196.0/24', 'AS112-v4', 'RFC 7535', 'doubtful'],
  ['192.52.193.0/24', 'AMT', 'RFC 7450', 'doubtful'],
  ['192.88.99.0/24', 'Deprecated (6to4 Relay Anycast)', 'RFC 7526', 'doubtful'],
  ['192.168.0.0/16', 'Private-Use', 'RFC 1918', 'free'],
  ['192.175.48.0/24', 'Direct Delegation AS112 Service', 'RFC 7534', 'doubtful'],
  ['198.18.0.0/15', 'Benchmarking', 'RFC 2544', 'doubtful'],
  ['198.51.100.0/24', 'Documentation (TEST-NET-2)', 'RFC 5737', 'doubtful'],
  ['203.0.113.0/24', 'Documentation (TEST-NET-3)', 'RFC 5737', 'doubtful'],
  ['224.0.0.0/4', 'Multicast', 'RFC 5771', 'never'],
  ['224.0.0.0/24', 'Local Network Control Block', 'RFC 5771 §4', 'never'],
  ['224.0.1.0/24', 'Internetwork Control Block', 'RFC 5771 §5', 'never'],
  ['232.0.0.0/8', 'Source-Specific Multicast Block', 'RFC 5771 §8', 'never'],
  ['233.0.0.0/8', 'GLOP Block', 'RFC 5771 §9', 'never'],
  ['239.0.0.0/8', 'Administratively Scoped Block', 'RFC 5771 §10', 'never'],
  ['240.0.0.0/4', 'Reserved', 'RFC 1112 §4', 'never'],
  ['255.255.255.255/32', 'Limited Broadcast', 'RFC 8190 §2.2', 'never'],
];

const specialBlocks: readonly SpecialBlock[] = rows.map(([cidr, name, source, use]) => ({
  prefix: must(parsePrefix(cidr)),
  name,
  source,
  use,
}));

/** Every special block the address lies in, the most specific last. */
export const specialBlocksOf = (address: Ipv4): readonly SpecialBlock[] =>
  specialBlocks
    .filter((block) => containsAddress(block.prefix, address))
    .sort((a, b) => a.prefix.length - b.prefix.length);

/** Every special block that shares an address with the prefix, in the order of the table. */
export const specialBlocksWithin = (prefix: Prefix): readonly SpecialBlock[] =>
  specialBlocks.filter((block) => overlaps(block.prefix, prefix));
