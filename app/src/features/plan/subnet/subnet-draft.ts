import {
  formatIpv4,
  formatPrefix,
  parseIpv4,
  readNetwork,
  type Issue,
  type Ipv4,
} from '@ipsonomo/core/net';
import { docOf, ROLES, type Role, type Subnet, type ThingDoc } from '@ipsonomo/core/plan';
import { readAddress } from '@ipsonomo/core/sheet';

/** A band as it is typed. */
export interface BandDraft {
  readonly role: Role;
  readonly first: string;
  readonly last: string;
}

export interface SubnetDraft {
  readonly name: string;
  readonly network: string;
  readonly gateway: string;
  readonly vlan: string;
  readonly purpose: string;
  readonly dnsSuffix: string;
  readonly dhcpServers: string;
  readonly note: string;
  readonly bands: readonly BandDraft[];
}

export const draftOfSubnet = (subnet: Subnet): SubnetDraft => ({
  name: subnet.name,
  network: formatPrefix(subnet.prefix),
  gateway: subnet.gateway === undefined ? '' : formatIpv4(subnet.gateway),
  vlan: subnet.vlan === undefined ? '' : String(subnet.vlan),
  purpose: subnet.purpose,
  dnsSuffix: subnet.dnsSuffix,
  dhcpServers: subnet.dhcpServers.map(formatIpv4).join(', '),
  note: subnet.note,
  bands: subnet.bands.map(({ role, first, last }) => ({
    ...{ role, first: formatIpv4(first), last: formatIpv4(last) },
  })),
});

export const FIELDS = ['name', 'network', 'gateway', 'vlan', 'dhcpServers'] as const;

export interface SubnetReading {
  /** The subnet as typed, in its old network; undefined where something is wrong. */
  readonly thing: ThingDoc | undefined;
  readonly prefix: Subnet['prefix'] | undefined;
  readonly issues: Readonly<Partial<Record<(typeof FIELDS)[number] | 'bands', Issue>>>;
}

/** What was typed, read against the network it is typed in. */
export function readSubnetDraft(subnet: Subnet, draft: SubnetDraft): SubnetReading {
  const issues: Partial<Record<(typeof FIELDS)[number] | 'bands', Issue>> = {};
  const address = (text: string, field: 'gateway' | 'dhcpServers' | 'bands'): Ipv4 | undefined => {
    const short = readAddress(text, subnet);
    const read = short.ok ? parseIpv4(short.value) : short;
    if (read.ok) return read.value;
    issues[field] ??= read.error;
    return undefined;
  };
  if (draft.name.trim() === '') issues.name = { code: 'name.empty', where: '' };
  const prefix = readNetwork(draft.network);
  if (!prefix.ok) issues.network = prefix.error;
  const vlan = draft.vlan.trim() === '' ? undefined : Number(draft.vlan);
  if (vlan !== undefined && !(Number.isInteger(vlan) && vlan >= 1 && vlan <= 4094))
    issues.vlan = { code: 'subnet.vlan', where: draft.vlan };
  const gateway = draft.gateway.trim() === '' ? undefined : address(draft.gateway, 'gateway');
  const servers = draft.dhcpServers
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);
  const dhcpServers = servers.flatMap((one) => address(one, 'dhcpServers') ?? []);
  const bands = draft.bands.flatMap(({ role, first, last }) => {
    const [a, b] = [address(first, 'bands'), address(last, 'bands')];
    return a === undefined || b === undefined ? [] : [{ role, first: a, last: b }];
  });
  const { purpose, dnsSuffix, note } = draft;
  const wanted: Subnet = {
    ...subnet,
    ...{ name: draft.name.trim(), gateway, vlan, dhcpServers, bands, note },
    ...{ purpose: purpose.trim(), dnsSuffix: dnsSuffix.trim() },
  };
  const isGood = Object.keys(issues).length === 0;
  return {
    thing: isGood ? docOf('subnet', wanted) : undefined,
    prefix: prefix.ok ? prefix.value : undefined,
    issues,
  };
}

/** The next role in turn: a band's role is changed by pressing it. */
export const nextRole = (role: Role): Role =>
  ROLES[(ROLES.indexOf(role) + 1) % ROLES.length] ?? role;
