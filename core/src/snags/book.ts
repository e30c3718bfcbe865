import type { Device, Plan, PlannedInterface, Subnet } from '../plan';
import { deviceSnags } from './device-rules';
import { groupKeysOf, judgeGroup, type GroupKey, type Member } from './group-rules';
import { leanedOn, placedBy, scopeOf } from './scope';
import { SEVERITIES, snagKey, type Severity, type Snag } from './snag';
import { cableSnags, subnetSnags, subnetUseSnags } from './subnet-rules';

/** What is kept of a device since the last look. */
interface Kept {
  readonly device: Device;
  readonly placedBy: readonly unknown[];
  readonly leanedOn: readonly unknown[];
  readonly keys: readonly GroupKey[];
  readonly snags: readonly Snag[];
}

const weight = (severity: Severity): number => SEVERITIES.indexOf(severity);

/**
 * The snags of a plan, kept from one revision to the next: only what an edit can have touched is
 * looked at again. Whatever was kept is the same as if all of it were computed anew; the tests hold
 * the two against each other.
 */
export class SnagBook {
  private plan: Plan | undefined;
  private readonly kept = new Map<string, Kept>();
  private readonly groups = new Map<string, Map<string, Member>>();
  private readonly groupSnags = new Map<string, readonly Snag[]>();
  private readonly members = new Map<string, Map<string, PlannedInterface>>();
  private readonly useSnags = new Map<string, readonly Snag[]>();
  private ofSubnets: readonly Snag[] = [];
  private ofCables: readonly Snag[] = [];
  private all: readonly Snag[] = [];
  private used: ReadonlyMap<string, Subnet> = new Map();
  private routers = '';

  /** All snags of this plan, the worst first. */
  update(plan: Plan): readonly Snag[] {
    if (plan === this.plan) return this.all;
    const before = this.plan;
    this.plan = plan;
    const devices = new Map(plan.devices.map((device) => [device.id, device]));
    const subnets = new Map(plan.subnets.map((subnet) => [subnet.id, subnet]));
    const dirty: Dirty = { keys: new Set(), subnets: new Set() };
    this.lookAtDevices(plan, devices, subnets, dirty);
    const order = orderOf(plan.devices);
    for (const key of dirty.keys) this.lookAtGroup(key, plan, order);
    for (const subnet of plan.subnets)
      if (dirty.subnets.has(subnet.id) || this.used.get(subnet.id) !== subnet)
        this.lookAtUse(plan, subnet, order);
    for (const id of [...this.useSnags.keys()]) if (!subnets.has(id)) this.useSnags.delete(id);
    this.used = subnets;
    const changed = this.routersChanged(plan);
    if (changed || SUBNET_PARTS.some((part) => before?.[part] !== plan[part]))
      this.ofSubnets = subnetSnags(plan);
    if (before?.cables !== plan.cables || before.devices !== plan.devices)
      this.ofCables = plan.cables.length === 0 ? [] : cableSnags(plan, devices);
    this.all = this.collect();
    return this.all;
  }

  private lookAtDevices(
    plan: Plan,
    devices: ReadonlyMap<string, Device>,
    subnets: ReadonlyMap<string, Subnet>,
    dirty: Dirty,
  ): void {
    for (const [id, kept] of this.kept) if (!devices.has(id)) this.forget(kept, dirty);
    for (const device of plan.devices) {
      const place = placedBy(device, subnets);
      const leaned = leanedOn(plan, device, devices);
      const kept = this.kept.get(device.id);
      const isPlacedSame = kept !== undefined && isSameList(kept.placedBy, place);
      if (isPlacedSame && isSameList(kept.leanedOn, leaned)) continue;
      const snags = deviceSnags(scopeOf(plan, device, devices, subnets));
      if (isPlacedSame) {
        this.kept.set(device.id, { ...kept, leanedOn: leaned, snags });
        // Another kind means other limits and factory addresses.
        if (kept.leanedOn[0] !== leaned[0]) markDirty(kept, dirty);
        continue;
      }
      if (kept) this.forget(kept, dirty);
      const keys = groupKeysOf(device, subnets);
      this.enter({ device, placedBy: place, leanedOn: leaned, keys, snags }, dirty);
    }
  }

  /** The addresses of devices that have routes or stand at a gateway decide about gateways. */
  private routersChanged(plan: Plan): boolean {
    const gateways = new Set(plan.subnets.map((subnet) => subnet.gateway));
    let text = '';
    for (const device of plan.devices)
      for (const at of device.interfaces)
        if (gateways.has(at.address)) text += `${device.id}/${device.kindId}/${at.address};`;
    const changed = text !== this.routers;
    this.routers = text;
    return changed;
  }

  private forget(kept: Kept, dirty: Dirty): void {
    this.kept.delete(kept.device.id);
    markDirty(kept, dirty);
    for (const { key, member } of kept.keys) this.groups.get(key)?.delete(memberId(member));
    for (const at of kept.device.interfaces) this.members.get(at.subnetId)?.delete(at.id);
  }

  private enter(kept: Kept, dirty: Dirty): void {
    this.kept.set(kept.device.id, kept);
    markDirty(kept, dirty);
    for (const { key, member } of kept.keys) into(this.groups, key).set(memberId(member), member);
    for (const at of kept.device.interfaces)
      into(this.members, at.subnetId).set(at.id, { device: kept.device, at });
  }

  private lookAtGroup(key: string, plan: Plan, order: Order): void {
    const group = this.groups.get(key);
    if (group?.size === 0) this.groups.delete(key);
    if (!group || group.size < 2) {
      this.groupSnags.delete(key);
      return;
    }
    const snags = judgeGroup(key, order([...group.values()]), plan);
    if (snags.length > 0) this.groupSnags.set(key, snags);
    else this.groupSnags.delete(key);
  }

  private lookAtUse(plan: Plan, subnet: Subnet, order: Order): void {
    const members = order([...(this.members.get(subnet.id)?.values() ?? [])]);
    const snags = subnetUseSnags(plan, subnet, members);
    if (snags.length > 0) this.useSnags.set(subnet.id, snags);
    else this.useSnags.delete(subnet.id);
  }

  private collect(): readonly Snag[] {
    const all: Snag[] = [...this.ofSubnets, ...this.ofCables];
    for (const snags of this.useSnags.values()) all.push(...snags);
    for (const snags of this.groupSnags.values()) all.push(...snags);
    for (const { snags } of this.kept.values()) all.push(...snags);
    return all.sort(
      (a, b) =>
        weight(a.severity) - weight(b.severity) ||
        compare(a.rule, b.rule) ||
        compare(a.id, b.id) ||
        compare(a.field ?? '', b.field ?? ''),
    );
  }
}

/** Groups and subnets that have to be looked at again. */
interface Dirty {
  readonly keys: Set<string>;
  readonly subnets: Set<string>;
}

function markDirty(kept: Kept, dirty: Dirty): void {
  for (const { key } of kept.keys) dirty.keys.add(key);
  for (const at of kept.device.interfaces) dirty.subnets.add(at.subnetId);
}

const SUBNET_PARTS = ['subnets', 'blocks', 'realms', 'kinds'] as const;

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

type Order = <M extends Member>(members: M[]) => M[];

/** Sorts members into the order of the plan, so that which one is named first does not change. */
function orderOf(devices: readonly Device[]): Order {
  let places: Map<string, number> | undefined;
  return (members) => {
    if (members.length < 2) return members;
    places ??= new Map(devices.map((device, index) => [device.id, index]));
    const at = places;
    const placeOf = (one: Member) => at.get(one.device.id) ?? 0;
    return members.sort((a, b) => placeOf(a) - placeOf(b));
  };
}

const isSameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((one, index) => one === b[index]);

const memberId = (member: Member): string => member.at?.id ?? member.device.id;

function into<K, V>(maps: Map<string, Map<K, V>>, key: string): Map<K, V> {
  let map = maps.get(key);
  if (!map) maps.set(key, (map = new Map()));
  return map;
}

/** All snags of a plan, computed at once. */
export const snagsOf = (plan: Plan): readonly Snag[] => new SnagBook().update(plan);

/** Those that nobody has accepted. */
export function openSnags(plan: Plan, snags: readonly Snag[]): readonly Snag[] {
  if (plan.acceptances.length === 0) return snags;
  const accepted = new Set(plan.acceptances.map((one) => one.key));
  return snags.filter((one) => !accepted.has(snagKey(one)));
}
