import { formatIpv4, formatMac, formatPrefix } from '../net';
import {
  docFromThings,
  STAGES,
  THING_TYPES,
  type Band,
  type Device,
  type Interface,
  type Plan,
  type PlanDoc,
  type Stage,
  type Subnet,
} from '../plan';
import { openSnags, SEVERITIES, type Snag } from '../snags';
import type {
  BandView,
  DeviceInfo,
  InterfaceView,
  JobView,
  Left,
  PlanView,
  ProgressView,
  SeenView,
  SubnetView,
} from './views';

// A job as the screens show it: the plan, what the evidence says of it, and its snags.

/** The document of a plan that came over the wire; the server checked it when it came in there. */
export const docFromView = (view: Pick<PlanView, 'things'>): PlanDoc =>
  docFromThings(
    THING_TYPES.flatMap((type) => (view.things[type] ?? []).map((thing) => [type, thing] as const)),
  );

export const thingsOf = (doc: PlanDoc): PlanView['things'] =>
  Object.fromEntries(
    THING_TYPES.map((type) => [type, [...doc[type].values()]]),
  ) as unknown as PlanView['things'];

const bandToView = (band: Band): BandView => ({
  role: band.role,
  first: formatIpv4(band.first),
  last: formatIpv4(band.last),
});

const subnetToView = (subnet: Subnet): SubnetView => ({
  id: subnet.id,
  name: subnet.name,
  network: formatPrefix(subnet.prefix),
  gateway: subnet.gateway === undefined ? null : formatIpv4(subnet.gateway),
  vlan: subnet.vlan ?? null,
  purpose: subnet.purpose,
  bands: subnet.bands.map(bandToView),
});

/** What is known of an interface of which nothing was seen. */
export const NOTHING_SEEN: SeenView = {
  stage: 'planned',
  notches: STAGES.map((stage) => ({
    stage,
    state: stage === 'planned' ? 'reached' : 'open',
    by: null,
  })),
  check: null,
  keep: null,
  askedBy: null,
  arrived: null,
  before: null,
  trouble: null,
};

interface Head {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}

const noSnags: readonly Snag[] = [];

type Seen = Pick<ProgressView, 'seen' | 'handedOver'>;

export function jobViewOf(
  { id, name, revision }: Head,
  plan: Plan,
  progress: Seen,
  snags: readonly Snag[],
): JobView {
  const open = openSnags(plan, snags);
  const byThing = snagsByThing(open);
  const devices = plan.devices.map((device) => deviceInfoOf(device, progress, byThing));
  const left = leftOf(devices, open, revision - progress.handedOver);
  return { id, name, revision, subnets: plan.subnets.map(subnetToView), devices, left };
}

/** Snags by the id of every device, interface or subnet they are at. */
function snagsByThing(snags: readonly Snag[]): ReadonlyMap<string, readonly Snag[]> {
  const map = new Map<string, Snag[]>();
  for (const snag of snags)
    for (const id of [snag.id, ...snag.also]) {
      const list = map.get(id);
      if (list) list.push(snag);
      else map.set(id, [snag]);
    }
  return map;
}

/** The infos made last: a device whose plan, evidence and snags are the same keeps its own. */
const made = new WeakMap<
  Device,
  { readonly from: readonly unknown[]; readonly info: DeviceInfo }
>();

function deviceInfoOf(
  device: Device,
  progress: Seen,
  byThing: ReadonlyMap<string, readonly Snag[]>,
): DeviceInfo {
  const snags = [device.id, ...device.interfaces.map((at) => at.id)].flatMap(
    (id) => byThing.get(id) ?? noSnags,
  );
  const from = [...snags, ...device.interfaces.map((at) => progress.seen[at.id])];
  const before = made.get(device);
  if (before?.from.length === from.length && before.from.every((one, i) => one === from[i]))
    return before.info;
  const info: DeviceInfo = {
    id: device.id,
    title: device.title,
    name: device.name,
    kindId: device.kindId,
    way: device.way,
    area: device.area,
    cabinet: device.cabinet,
    position: device.position,
    interfaces: device.interfaces.map((at) => interfaceToView(at, progress.seen[at.id])),
    snags: [...new Set(snags)].sort(
      (a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity),
    ),
  };
  made.set(device, { from, info });
  return info;
}

const interfaceToView = (at: Interface, seen: SeenView = NOTHING_SEEN): InterfaceView => ({
  id: at.id,
  subnetId: at.subnetId,
  address: formatIpv4(at.address),
  mac: macOrNull(at.mac),
  loan: at.loan ? { ...at.loan, address: formatIpv4(at.loan.address) } : null,
  ...seen,
});

function leftOf(devices: readonly DeviceInfo[], open: readonly Snag[], changes: number): Left {
  const interfaces = devices.flatMap((device) => device.interfaces);
  const at = (stage: Stage) => STAGES.indexOf(stage);
  return {
    plan: open.filter((one) => one.severity !== 'hint').length,
    assign: interfaces.filter((one) => at(one.stage) < at('pinned')).length,
    prove: interfaces.filter((one) => one.check?.kind !== 'found-as-planned' && isDue(one)).length,
    handOver: changes,
  };
}

/** Something can be proven, or was found otherwise. */
const isDue = (one: InterfaceView): boolean =>
  one.check !== null || STAGES.indexOf(one.stage) >= STAGES.indexOf('given');

export const macOrNull = (mac: Parameters<typeof formatMac>[0] | undefined): string | null =>
  mac === undefined ? null : formatMac(mac);
