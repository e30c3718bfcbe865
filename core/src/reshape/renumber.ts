import {
  containsAddress,
  formatIpv4,
  isSamePrefix,
  lastOf,
  sizeOf,
  toIpv4,
  type Ipv4,
  type Prefix,
} from '../net';
import {
  avoidedFor,
  changeOf,
  docOf,
  findDoc,
  findKind,
  nextFree,
  type Device,
  type Edit,
  type Plan,
  type PlanDoc,
  type Subnet,
} from '../plan';

/** One address as it was and as it will be, with where it is written. */
interface Renumbered {
  readonly device: Device;
  /** `address` of an interface, or where else the old address stands: `gateway`, `reference`, `route`. */
  readonly place: 'address' | 'gateway' | 'reference' | 'route' | 'translation';
  readonly before: string;
  readonly after: string;
  /** The host part is another than before, because it does not fit. */
  readonly isNew: boolean;
}

export interface Renumbering {
  readonly edits: readonly Edit[];
  readonly rows: readonly Renumbered[];
  /** Devices for which the new network has no address. */
  readonly left: readonly Device[];
}

/**
 * Moves a subnet to another network. Host parts stay where they fit; what does not gets the next free
 * address of its band. Every place where an old address is written goes along and is listed.
 */
export function renumber(
  plan: Plan,
  doc: PlanDoc,
  subnet: Subnet,
  prefix: Prefix,
  now: number,
): Renumbering {
  const moved = moveSubnet(subnet, prefix);
  const addresses = new Map<Ipv4, Ipv4>();
  const rows: Renumbered[] = [];
  const edits: Edit[] = [];
  const left: Device[] = [];
  const shifted = (address: Ipv4) => shiftInto(address, subnet.prefix, prefix);
  const members = plan.devices.flatMap((device) =>
    device.interfaces.filter((at) => at.subnetId === subnet.id).map((at) => ({ device, at })),
  );
  const taken = new Set(members.flatMap(({ at }) => shifted(at.address) ?? []));
  for (const { device, at } of members) {
    const kept = shifted(at.address);
    const kind = findKind(plan, device.kindId);
    const avoided = { ...avoidedFor(plan, subnet, { kind, way: device.way, now }), taken };
    const after = kept ?? nextFree(moved, kind?.role ?? 'io', avoided);
    if (after === undefined) {
      left.push(device);
      continue;
    }
    taken.add(after);
    addresses.set(at.address, after);
    const words = { before: formatIpv4(at.address), after: formatIpv4(after) };
    rows.push({ device, place: 'address', ...words, isNew: kept === undefined });
    const thing = findDoc(doc, 'interface', at.id);
    if (thing) edits.push(...changeOf('interface', thing, { address: words.after }));
  }
  const written = writtenElsewhere(plan, doc, subnet, addresses, shifted);
  const thing = findDoc(doc, 'subnet', subnet.id);
  const ofSubnet = thing ? changeOf('subnet', thing, docOf('subnet', moved)) : [];
  return {
    edits: [...ofSubnet, ...edits, ...written.edits],
    rows: [...rows, ...written.rows],
    left,
  };
}

/** The address with the same host part in another network; undefined where it does not fit there. */
export function shiftInto(address: Ipv4, from: Prefix, to: Prefix): Ipv4 | undefined {
  if (!containsAddress(from, address)) return undefined;
  const host = address - from.network;
  // Neither the network nor the broadcast address of the new one is anybody's.
  const isEdge = to.length < 31 && (host === 0 || host === sizeOf(to) - 1);
  return host < sizeOf(to) && !isEdge ? toIpv4(to.network + host) : undefined;
}

function moveSubnet(subnet: Subnet, prefix: Prefix): Subnet {
  const shifted = (address: Ipv4) => shiftInto(address, subnet.prefix, prefix);
  const range = <R extends { readonly first: Ipv4; readonly last: Ipv4 }>(one: R): readonly R[] => {
    const first = shifted(one.first);
    if (first === undefined) return [];
    return [{ ...one, first, last: shifted(one.last) ?? toIpv4(lastOf(prefix) - 1) }];
  };
  return {
    ...subnet,
    prefix,
    gateway: subnet.gateway === undefined ? undefined : shifted(subnet.gateway),
    bands: subnet.bands.flatMap(range),
    held: subnet.held.flatMap(range),
    dhcpServers: subnet.dhcpServers.map((one) => shifted(one) ?? one),
  };
}

/** Gateways, values of other devices, routes and translations that name an address of the subnet. */
function writtenElsewhere(
  plan: Plan,
  doc: PlanDoc,
  subnet: Subnet,
  addresses: ReadonlyMap<Ipv4, Ipv4>,
  shifted: (address: Ipv4) => Ipv4 | undefined,
): { readonly edits: readonly Edit[]; readonly rows: readonly Renumbered[] } {
  const rows: Renumbered[] = [];
  const edits: Edit[] = [];
  const moved = (device: Device, place: Renumbered['place'], one: Ipv4): Ipv4 => {
    const after = addresses.get(one) ?? shifted(one);
    if (after === undefined || after === one) return one;
    rows.push({ device, place, before: formatIpv4(one), after: formatIpv4(after), isNew: false });
    return after;
  };
  for (const device of plan.devices) {
    const things = findDoc(doc, 'device', device.id);
    for (const at of device.interfaces) {
      if (typeof at.gateway === 'string') continue;
      const gateway = moved(device, 'gateway', at.gateway);
      const thing = findDoc(doc, 'interface', at.id);
      if (thing) edits.push(...changeOf('interface', thing, { gateway: formatIpv4(gateway) }));
    }
    if (!things || !mentions(device)) continue;
    const after: Device = {
      ...device,
      references: device.references.map((one) =>
        one.address === undefined
          ? one
          : { ...one, address: moved(device, 'reference', one.address) },
      ),
      routes: device.routes.map((one) => ({
        to: isSamePrefix(one.to, subnet.prefix) ? movedPrefix(one.to, subnet, shifted) : one.to,
        via: moved(device, 'route', one.via),
      })),
      translations: device.translations.map((one) =>
        one.kind === 'many-to-one'
          ? { ...one, outside: moved(device, 'translation', one.outside) }
          : one,
      ),
    };
    edits.push(...changeOf('device', things, docOf('device', after)));
  }
  return { edits, rows };
}

const mentions = ({ references, routes, translations }: Device): boolean =>
  references.length + routes.length + translations.length > 0;

/** A route to the whole subnet follows it. */
function movedPrefix(
  to: Prefix,
  subnet: Subnet,
  shifted: (address: Ipv4) => Ipv4 | undefined,
): Prefix {
  const probe = shifted(toIpv4(subnet.prefix.network + 1));
  return probe === undefined ? to : { ...to, network: toIpv4(probe - 1) };
}
