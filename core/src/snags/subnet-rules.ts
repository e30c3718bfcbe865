import {
  containsAddress,
  containsPrefix,
  formatIpv4,
  formatPrefix,
  hostCountOf,
  overlaps,
  parsePrefix,
  rangeHas,
  must,
  roleOf,
  specialBlocksOf,
  type Ipv4,
} from '../net';
import {
  findKind,
  lengthFor,
  splitBlock,
  type Block,
  type Device,
  type Plan,
  type PlannedInterface,
  type Subnet,
} from '../plan';
import { snag, type Snag, type SnagRule } from './snag';

const place = (subnet: Subnet, field: string, also: readonly string[] = []) =>
  ({ type: 'subnet', id: subnet.id, field, also }) as const;

const factsOf = (subnet: Subnet) => ({
  subnet: subnet.name,
  network: formatPrefix(subnet.prefix),
});

/** Networks that a router at home or in an office has by itself (common practice, no source). */
const HOME_NETWORKS = ['192.168.0.0/24', '192.168.1.0/24', '192.168.2.0/24', '10.0.0.0/24'].map(
  (text) => must(parsePrefix(text)),
);

const PRIVATE = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16'].map((text) =>
  must(parsePrefix(text)),
);

/** Blocks with a use of their own, by the number of their RFC's block. */
const SPECIAL: readonly (readonly [network: string, rule: SnagRule])[] = [
  ['169.254.0.0/16', 'S-SUBNET-LINK-LOCAL'],
  ['192.0.2.0/24', 'S-SUBNET-DOCUMENTATION'],
  ['198.51.100.0/24', 'S-SUBNET-DOCUMENTATION'],
  ['203.0.113.0/24', 'S-SUBNET-DOCUMENTATION'],
  ['100.64.0.0/10', 'S-SUBNET-SHARED'],
];

const special = SPECIAL.map(([network, rule]) => [must(parsePrefix(network)), rule] as const);

/** Everything of the subnets among themselves; they are few, so all of it is looked at again. */
export function subnetSnags(plan: Plan): readonly Snag[] {
  const realms = new Set(plan.realms.map((one) => one.id));
  const routers = plan.devices.filter((device) => findKind(plan, device.kindId)?.forwards);
  const routed = new Set<Ipv4>(routers.flatMap((one) => one.interfaces.map((at) => at.address)));
  const snags = plan.subnets.flatMap((subnet) => [
    ...spaceSnags(subnet),
    ...rangeSnags(subnet),
    ...gatewaySnags(subnet, routed),
    ...(realms.has(subnet.realmId)
      ? []
      : [snag('S-REALM-GONE', place(subnet, 'realmId'), factsOf(subnet))]),
    ...blockOfSnags(plan, subnet),
    ...(subnet.found === ''
      ? []
      : [snag('S-FOUND', place(subnet, 'found'), { what: subnet.name, how: subnet.found })]),
  ]);
  return [...snags, ...overlapSnags(plan), ...vlanSnags(plan), ...plan.blocks.flatMap(blockSnags)];
}

function spaceSnags(subnet: Subnet): readonly Snag[] {
  const { prefix } = subnet;
  const facts = factsOf(subnet);
  const at = place(subnet, 'prefix');
  const never = specialBlocksOf(prefix.network).find((block) => block.use === 'never');
  if (never) return [snag('S-SUBNET-NEVER', at, { ...facts, block: never.name })];
  const found = special.find(([block]) => overlaps(block, prefix));
  if (found) return [snag(found[1], at, facts)];
  // One around it meets it as well as one within.
  if (HOME_NETWORKS.some((home) => overlaps(home, prefix)))
    return [snag('S-SUBNET-HOME', at, facts)];
  const isPublic = !PRIVATE.some((block) => containsPrefix(block, prefix));
  return isPublic && subnet.note.trim() === '' ? [snag('S-SUBNET-PUBLIC', at, facts)] : [];
}

function rangeSnags(subnet: Subnet): readonly Snag[] {
  const snags: Snag[] = [];
  const facts = factsOf(subnet);
  for (const [field, ranges] of [
    ['bands', subnet.bands.map((band) => ({ ...band, note: band.role }))],
    ['held', subnet.held],
  ] as const)
    for (const { first, last, note } of ranges) {
      const range = { first: formatIpv4(first), last: formatIpv4(last), note };
      const isInside =
        first <= last &&
        containsAddress(subnet.prefix, first) &&
        containsAddress(subnet.prefix, last);
      if (!isInside)
        snags.push(snag('S-RANGE-OUTSIDE', place(subnet, field), { ...facts, ...range }));
    }
  const sorted = [...subnet.bands].sort((a, b) => a.first - b.first);
  sorted.forEach((band, index) => {
    const before = sorted[index - 1];
    if (before && band.first <= before.last)
      snags.push(
        snag('S-BAND-OVERLAP', place(subnet, 'bands'), {
          ...facts,
          ...{ band: band.role, other: before.role, first: formatIpv4(band.first) },
        }),
      );
  });
  return snags;
}

function gatewaySnags(subnet: Subnet, routed: ReadonlySet<Ipv4>): readonly Snag[] {
  const { gateway } = subnet;
  if (gateway === undefined) return [];
  const facts = { ...factsOf(subnet), gateway: formatIpv4(gateway) };
  const role = roleOf(subnet.prefix, gateway);
  if (role !== 'host')
    return [snag('S-GATEWAY-OUTSIDE', place(subnet, 'gateway'), { ...facts, role })];
  // Only where the plan has routers at all: elsewhere the gateway is somebody else's.
  if (routed.size === 0 || routed.has(gateway)) return [];
  return [snag('S-GATEWAY-NOBODY', place(subnet, 'gateway'), facts)];
}

function blockOfSnags(plan: Plan, subnet: Subnet): readonly Snag[] {
  const blocks = plan.blocks.filter((block) => block.realmId === subnet.realmId);
  if (blocks.length === 0 || blocks.some((one) => containsPrefix(one.prefix, subnet.prefix)))
    return [];
  const all = blocks.map((one) => formatPrefix(one.prefix)).join(', ');
  return [snag('S-SUBNET-BLOCK', place(subnet, 'prefix'), { ...factsOf(subnet), blocks: all })];
}

function overlapSnags(plan: Plan): readonly Snag[] {
  const snags: Snag[] = [];
  // In the order of their networks, so that whatever overlaps one stands right before it.
  const open: Subnet[] = [];
  const sorted = [...plan.subnets].sort(
    (a, b) => a.prefix.network - b.prefix.network || a.prefix.length - b.prefix.length,
  );
  for (const subnet of sorted) {
    for (const other of open)
      if (other.realmId === subnet.realmId && overlaps(other.prefix, subnet.prefix))
        snags.push(
          snag('S-SUBNET-OVERLAP', place(subnet, 'prefix', [other.id]), {
            ...factsOf(subnet),
            ...{ other: other.name, otherNetwork: formatPrefix(other.prefix) },
          }),
        );
    for (let i = open.length - 1; i >= 0; i -= 1)
      if (!overlaps(open[i]?.prefix ?? subnet.prefix, subnet.prefix)) open.splice(i, 1);
    open.push(subnet);
  }
  return snags;
}

function vlanSnags(plan: Plan): readonly Snag[] {
  const seen = new Map<string, Subnet>();
  return plan.subnets.flatMap((subnet) => {
    if (subnet.vlan === undefined) return [];
    const key = `${subnet.realmId}|${subnet.vlan}`;
    const before = seen.get(key);
    seen.set(key, before ?? subnet);
    if (!before) return [];
    const facts = { ...factsOf(subnet), vlan: subnet.vlan, other: before.name };
    return [snag('S-VLAN-TWICE', place(subnet, 'vlan', [before.id]), facts)];
  });
}

/** A need of a block that has no place, or a place too small. */
function blockSnags(block: Block): readonly Snag[] {
  const split = splitBlock(block.prefix, block.needs);
  const at = { type: 'block', id: block.id, field: 'needs' } as const;
  const facts = { block: block.name, network: formatPrefix(block.prefix) };
  if (!split.ok)
    return split.error.map(({ where, facts: more }) =>
      snag('S-BLOCK-NEED', at, {
        ...facts,
        where,
        need: String(more && 'name' in more ? more.name : ''),
      }),
    );
  return split.value.unplaced.map(({ need, wanted }) =>
    snag('S-BLOCK-NEED', at, {
      ...{ ...facts, need: need.name, where: `/${lengthFor(need, block.prefix) ?? wanted}` },
    }),
  );
}

const LEAST_FREE = 0.1;

/** What the devices of one subnet come to together: room, bands, factory addresses. */
export function subnetUseSnags(
  plan: Plan,
  subnet: Subnet,
  members: readonly PlannedInterface[],
): readonly Snag[] {
  const snags: Snag[] = [];
  const facts = factsOf(subnet);
  const heldCount = subnet.held.reduce((sum, one) => sum + (one.last - one.first + 1), 0);
  const pools = subnet.bands.filter((band) => band.role === 'pool' || band.role === 'laptops');
  const kept = heldCount + pools.reduce((sum, one) => sum + (one.last - one.first + 1), 0);
  const room = hostCountOf(subnet.prefix) - kept - (subnet.gateway === undefined ? 0 : 1);
  const free = room - members.length;
  const capacity = { ...facts, devices: members.length, room, free };
  // A subnet of two or three is made to be full.
  if (free < 0) snags.push(snag('S-SUBNET-SMALL', place(subnet, 'prefix'), capacity));
  else if (subnet.prefix.length < 30 && free < members.length * LEAST_FREE)
    snags.push(snag('S-SUBNET-GROWTH', place(subnet, 'prefix'), capacity));
  snags.push(...bandFull(plan, subnet, members));
  snags.push(...factorySnags(plan, subnet, members));
  return snags;
}

function bandFull(
  plan: Plan,
  subnet: Subnet,
  members: readonly PlannedInterface[],
): readonly Snag[] {
  return subnet.bands.flatMap((band) => {
    const users = members.filter(({ at }) => rangeHas(band, at.address));
    const size = band.last - band.first + 1;
    const isDevices = users.some(({ device }) => findKind(plan, device.kindId)?.role === band.role);
    if (users.length < size || !isDevices) return [];
    return [snag('S-BAND-FULL', place(subnet, 'bands'), { ...factsOf(subnet), band: band.role })];
  });
}

/** Fresh devices meet: each other at one factory address, or the device that is planned there. */
function factorySnags(
  plan: Plan,
  subnet: Subnet,
  members: readonly PlannedInterface[],
): readonly Snag[] {
  const byFactory = new Map<Ipv4, PlannedInterface[]>();
  const proposed = new Map<Ipv4, string>();
  for (const member of members) {
    const kind = findKind(plan, member.device.kindId);
    if (kind?.factory.kind === 'fixed') {
      const { address } = kind.factory;
      const list = byFactory.get(address);
      if (list) list.push(member);
      else byFactory.set(address, [member]);
    }
    if (kind?.proposes !== undefined) proposed.set(kind.proposes, kind.name);
  }
  const snags: Snag[] = [];
  for (const [address, fresh] of byFactory)
    if (fresh.length > 1)
      snags.push(
        snag(
          'S-FACTORY-WIRE',
          place(
            subnet,
            'name',
            fresh.map(({ at }) => at.id),
          ),
          {
            ...factsOf(subnet),
            ...{ address: formatIpv4(address), count: fresh.length },
            devices: fresh
              .slice(0, 3)
              .map(({ device }) => device.title)
              .join(', '),
          },
        ),
      );
  const freedHere = plan.freed.filter((one) => one.subnetId === subnet.id);
  for (const { device, at } of members) {
    const facts = () => ({
      ...factsOf(subnet),
      ...{ device: device.title, address: formatIpv4(at.address) },
    });
    const spot = { type: 'interface', id: at.id, field: 'address' } as const;
    const freed = freedHere.find((one) => one.address === at.address && one.deviceId !== device.id);
    if (freed) snags.push(snag('S-ADDRESS-FREED', spot, { ...facts(), whose: freed.whose }));
    const fresh = byFactory.get(at.address)?.[0];
    if (fresh)
      snags.push(snag('S-ADDRESS-FACTORY', spot, { ...facts(), other: fresh.device.title }));
    const tool = proposed.get(at.address);
    if (tool !== undefined)
      snags.push(snag('S-ADDRESS-PROPOSED', spot, { ...facts(), kind: tool }));
  }
  return snags;
}

/** Cables: a port has one, and both ends are in the plan. */
export function cableSnags(
  plan: Plan,
  deviceOf: (id: string) => Device | undefined,
): readonly Snag[] {
  const snags: Snag[] = [];
  const used = new Map<string, string>();
  for (const cable of plan.cables)
    for (const [field, end] of [
      ['from', cable.from],
      ['to', cable.to],
    ] as const) {
      const at = { type: 'cable', id: cable.id, field } as const;
      const device = deviceOf(end.deviceId);
      const facts = { device: device?.title ?? end.deviceId, port: end.port };
      if (!device) {
        snags.push(snag('S-CABLE-GONE', at, facts));
        continue;
      }
      const key = `${end.deviceId}|${end.port.trim().toLowerCase()}`;
      const before = used.get(key);
      if (before !== undefined) snags.push(snag('S-PORT-TWICE', { ...at, also: [before] }, facts));
      else used.set(key, cable.id);
    }
  return snags;
}
