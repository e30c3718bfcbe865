import { containsAddress, formatIpv4, formatMac, type Ipv4, type MacAddress } from '../net';
import {
  addressesServing,
  changeOf,
  dhcpNameOf,
  findDoc,
  findSubnet,
  interfacesOf,
  type Edit,
  type Plan,
  type PlanDoc,
  type PlannedInterface,
  type Subnet,
} from '../plan';
import type { KnownEntry } from './read';

export type KnownVerdict =
  /** Its MAC and its address are those planned; or its address, where no MAC is said. */
  | 'as-planned'
  /** Its address is planned, and no MAC is bound to it yet. */
  | 'unbound'
  /** Its name is planned, and so known whose MAC it is, at the planned address or before it has it. */
  | 'by-name'
  /** The planned MAC has another address. */
  | 'other-address'
  /** The planned address has another MAC. */
  | 'other-mac'
  /** It is the gateway or a DHCP server of a subnet, which the plan knows by its address alone. */
  | 'infrastructure'
  /** Nobody planned it. */
  | 'stranger';

export interface KnownFinding {
  readonly entry: KnownEntry;
  readonly verdict: KnownVerdict;
  /** Undefined of a stranger, and of what serves a subnet. */
  readonly planned: PlannedInterface | undefined;
}

/**
 * R-KNOWN-AGAINST: what others know, held against the plan as what is found on site is: by its MAC first, which is a
 * device's own; then by its address; then by its name, which a person typed.
 */
export function compareKnown(plan: Plan, entries: readonly KnownEntry[]): readonly KnownFinding[] {
  const all = interfacesOf(plan);
  const byMac = new Map<MacAddress, PlannedInterface>();
  const byAddress = new Map<Ipv4, PlannedInterface>();
  const byName = new Map<string, PlannedInterface>();
  const serving = addressesServing(plan.subnets);
  for (const one of all) {
    if (one.at.mac !== undefined) byMac.set(one.at.mac, one);
    byAddress.set(one.at.address, one);
    if (one.device.interfaces[0] === one.at)
      for (const name of [one.device.name, dhcpNameOf(one.device)])
        byName.set(name.toLowerCase(), one);
  }
  return entries.map((entry): KnownFinding => {
    const { mac, address } = entry;
    const own = mac === undefined ? undefined : byMac.get(mac);
    if (own)
      return {
        ...{ entry, planned: own },
        verdict:
          address === undefined || own.at.address === address ? 'as-planned' : 'other-address',
      };
    const there = address === undefined ? undefined : byAddress.get(address);
    const named = byName.get(entry.name.toLowerCase());
    // A name that a person typed says more than the address that a pool gave.
    if (mac !== undefined && named && named.at.mac === undefined && named !== there)
      return { entry, planned: named, verdict: 'by-name' };
    if (!there) {
      const serves = address !== undefined && serving.has(address);
      return { entry, planned: undefined, verdict: serves ? 'infrastructure' : 'stranger' };
    }
    if (mac === undefined) return { entry, planned: there, verdict: 'as-planned' };
    return { entry, planned: there, verdict: there.at.mac === undefined ? 'unbound' : 'other-mac' };
  });
}

/**
 * The MACs of these taken into the plan. One MAC that would be two interfaces', or two of one interface, is taken by
 * none: that is for a person to say.
 */
export function knownEdits(doc: PlanDoc, findings: readonly KnownFinding[]): readonly Edit[] {
  const wanted = findings.filter(
    ({ verdict, entry, planned }) =>
      (verdict === 'unbound' || verdict === 'by-name') && entry.mac !== undefined && planned,
  );
  const count = (has: (one: KnownFinding) => unknown, of: KnownFinding) =>
    wanted.filter((one) => has(one) === has(of)).length;
  return wanted.flatMap((one) => {
    const { entry, planned } = one;
    const thing = planned && findDoc(doc, 'interface', planned.at.id);
    const isOnly =
      count(({ entry: { mac } }) => mac, one) === 1 &&
      count(({ planned: at }) => at?.at.id, one) === 1;
    return thing && isOnly && entry.mac !== undefined
      ? changeOf('interface', thing, { mac: formatMac(entry.mac) })
      : [];
  });
}

/** The plan takes the address that its device was found with; none where no subnet has room for it. */
export function addressEdits(
  plan: Plan,
  doc: PlanDoc,
  { at }: PlannedInterface,
  address: Ipv4,
): readonly Edit[] {
  const own = findSubnet(plan, at.subnetId);
  const around = (subnet: Subnet | undefined) =>
    subnet !== undefined && containsAddress(subnet.prefix, address);
  const subnet = around(own)
    ? own
    : plan.subnets.find((one) => one.realmId === own?.realmId && around(one));
  const thing = findDoc(doc, 'interface', at.id);
  return thing && subnet
    ? changeOf('interface', thing, { address: formatIpv4(address), subnetId: subnet.id })
    : [];
}
