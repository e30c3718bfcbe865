import {
  findKind,
  type Device,
  type Kind,
  type Plan,
  type PlannedInterface,
  type Subnet,
} from '../plan';
import { deviceSnags } from './device-rules';
import {
  controllerSnags,
  eachGroupKey,
  judgeGroup,
  type GroupKey,
  type GroupKind,
  type Member,
} from './group-rules';
import { leansOn } from './scope';
import { joined, SEVERITIES, snagKey, type Severity, type Snag } from './snag';
import { cableSnags, subnetSnags, subnetUseSnags } from './subnet-rules';

/** What is kept of a device since the last look: itself, and what its place depends on. */
interface Kept {
  readonly device: Device;
  readonly kind: Kind | undefined;
  /** The subnet of each interface. */
  readonly subnets: readonly (Subnet | undefined)[];
}

/** What an edit has touched and has to be looked at again. */
interface Dirty {
  readonly devices: Set<string>;
  readonly controllers: Set<string>;
  /** Groups by the text of their key: only those with more than one member come here. */
  readonly keys: Map<string, GroupKey>;
  readonly subnets: Set<string>;
  routers: boolean;
  titles: boolean;
}

/**
 * The snags of a plan, kept from one revision to the next: only what an edit can have touched is
 * looked at again. Whatever was kept is the same as if all of it were computed anew; the tests hold
 * the two against each other.
 */
export class SnagBook {
  private plan: Plan | undefined;
  private readonly kept = new Map<string, Kept>();
  private readonly leaners = new Map<string, Set<string>>();
  private readonly groups = new Map<GroupKind, Map<string, Group>>();
  private readonly members = new Map<string, PlannedInterface[]>();
  private readonly ofDevices = new Map<string, readonly Snag[]>();
  private readonly ofGroups = new Map<string, readonly Snag[]>();
  private readonly ofUses = new Map<string, readonly Snag[]>();
  private ofSubnets: readonly Snag[] = [];
  private ofCables: readonly Snag[] = [];
  private all: readonly Snag[] = [];
  private subnets: ReadonlyMap<string, Subnet> = new Map();
  private alone = new Map<Subnet, readonly Subnet[]>();
  /** `realm|realm` of all that a router translates between. */
  private translated: ReadonlySet<string> = new Set();
  /** Where each device stands in the plan. */
  private places: ReadonlyMap<string, number> = new Map();

  /** All snags of this plan, the worst first. */
  update(plan: Plan): readonly Snag[] {
    if (plan === this.plan) return this.all;
    const before = this.plan;
    this.plan = plan;
    const dirty = this.takeIn(plan, before);
    if (dirty.routers) this.takeInTranslations(plan, dirty);
    for (const id of dirty.devices) this.lookAtDevice(id);
    for (const [text, key] of dirty.keys) this.lookAtGroup(text, key);
    for (const id of dirty.subnets) this.lookAtUse(plan, id);
    if (dirty.routers || SUBNET_PARTS.some((part) => before?.[part] !== plan[part]))
      this.ofSubnets = subnetSnags(plan);
    if (dirty.titles || before?.cables !== plan.cables)
      this.ofCables = cableSnags(plan, this.deviceOf);
    this.all = this.collect();
    return this.all;
  }

  /** Takes what is new of a plan into the indexes. */
  private takeIn(plan: Plan, before: Plan | undefined): Dirty {
    const dirty: Dirty = {
      ...{ devices: new Set(), controllers: new Set(), keys: new Map(), subnets: new Set() },
      ...{ routers: false, titles: false },
    };
    if (before?.subnets !== plan.subnets) this.takeInSubnets(plan, dirty);
    if (before?.freed !== plan.freed)
      for (const list of [before?.freed ?? [], plan.freed])
        for (const { subnetId } of list) dirty.subnets.add(subnetId);
    if (before && before.kinds !== plan.kinds) this.takeInKinds(plan, dirty);
    if (before?.devices !== plan.devices) this.takeInDevices(plan, before?.devices ?? [], dirty);
    // At first all of them are looked at anyway.
    if (before)
      for (const id of [...dirty.devices])
        for (const leaner of this.leaners.get(id) ?? []) dirty.devices.add(leaner);
    for (const id of dirty.controllers) dirty.devices.add(id);
    return dirty;
  }

  private takeInSubnets(plan: Plan, dirty: Dirty): void {
    const subnets = new Map(plan.subnets.map((subnet) => [subnet.id, subnet]));
    for (const id of this.subnets.keys()) if (!subnets.has(id)) dirty.subnets.add(id);
    for (const [id, subnet] of subnets) if (this.subnets.get(id) !== subnet) dirty.subnets.add(id);
    this.subnets = subnets;
    this.alone = new Map();
    for (const id of [...dirty.subnets])
      for (const { device } of [...(this.members.get(id) ?? [])])
        this.enterAgain(device, plan, dirty);
  }

  private takeInKinds(plan: Plan, dirty: Dirty): void {
    for (const { device, kind } of [...this.kept.values()])
      if (findKind(plan, device.kindId) !== kind) this.enterAgain(device, plan, dirty);
  }

  private takeInDevices(plan: Plan, before: readonly Device[], dirty: Dirty): void {
    if (this.kept.size === 0) return this.takeInAll(plan, dirty);
    let isSameOrder = before.length === plan.devices.length;
    plan.devices.forEach((device, index) => {
      const was = before[index];
      if (was === device) return;
      if (was?.id !== device.id) isSameOrder = false;
      if (this.kept.get(device.id)?.device === device) return;
      if (this.kept.get(device.id)?.device.title !== device.title) dirty.titles = true;
      this.enterAgain(device, plan, dirty);
    });
    if (isSameOrder) return;
    this.places = new Map(plan.devices.map((device, index) => [device.id, index]));
    for (const [id, kept] of [...this.kept])
      if (!this.places.has(id)) {
        this.forget(kept, dirty);
        dirty.titles = true;
      }
  }

  /** Which realms are translated between decides whether a controller finds its devices. */
  private takeInTranslations(plan: Plan, dirty: Dirty): void {
    const pairs = new Set<string>();
    for (const { translations, interfaces } of plan.devices) {
      if (translations.length === 0) continue;
      const realms = interfaces.flatMap((one) => this.subnets.get(one.subnetId)?.realmId ?? []);
      for (const a of realms) for (const b of realms) pairs.add(`${a}|${b}`);
    }
    const isSame =
      pairs.size === this.translated.size && [...pairs].every((one) => this.translated.has(one));
    if (isSame) return;
    this.translated = pairs;
    for (const { device } of this.kept.values())
      if (device.controllerId !== undefined) dirty.devices.add(device.id);
  }

  /** The first look: nothing is known that could be another. */
  private takeInAll(plan: Plan, dirty: Dirty): void {
    dirty.titles = true;
    this.places = new Map(plan.devices.map((device, index) => [device.id, index]));
    for (const device of plan.devices) this.enter(device, plan, dirty);
  }

  private enterAgain(device: Device, plan: Plan, dirty: Dirty): void {
    const kept = this.kept.get(device.id);
    if (kept) this.forget(kept, dirty);
    this.enter(device, plan, dirty);
  }

  private forget(kept: Kept, dirty: Dirty): void {
    const { id, interfaces } = kept.device;
    this.kept.delete(id);
    markDirty(kept, dirty);
    eachGroupKey(kept.device, kept.subnets, (kind, scope, value, member) =>
      this.leaveGroup(kind, scope, value, member, dirty),
    );
    for (const at of interfaces) {
      const rest = this.members.get(at.subnetId)?.filter((one) => one.at !== at) ?? [];
      this.members.set(at.subnetId, rest);
    }
    for (const other of leansOn(kept.device)) this.leaners.get(other)?.delete(id);
  }

  private enter(device: Device, plan: Plan, dirty: Dirty): void {
    const kept: Kept = {
      device,
      kind: findKind(plan, device.kindId),
      subnets: this.subnetsOf(device),
    };
    this.kept.set(device.id, kept);
    markDirty(kept, dirty);
    eachGroupKey(device, kept.subnets, (kind, scope, value, member) =>
      this.joinGroup(kind, scope, value, member, dirty),
    );
    for (const at of device.interfaces)
      into(this.members, at.subnetId, newMembers).push({ device, at });
    for (const other of leansOn(device)) into(this.leaners, other, newIds).add(device.id);
  }

  /** Nearly every device has one interface: those of one subnet share a list. */
  private subnetsOf({ interfaces }: Device): readonly (Subnet | undefined)[] {
    const [first, ...others] = interfaces;
    const subnet = first && this.subnets.get(first.subnetId);
    if (subnet === undefined || others.length > 0)
      return interfaces.map((at) => this.subnets.get(at.subnetId));
    return into(this.alone, subnet, () => [subnet]);
  }

  private groupsOf(kind: GroupKind, scope: string): Group {
    return into(into(this.groups, kind, newScopes), scope, newGroup);
  }

  // Nearly every group has one member, so it is kept as small as it can be.
  private joinGroup(
    kind: GroupKind,
    scope: string,
    value: string | number,
    member: Member,
    dirty: Dirty,
  ): void {
    const groups = this.groupsOf(kind, scope);
    const group = groups.get(value);
    if (group === undefined) {
      groups.set(value, member);
      return;
    }
    markGroup({ kind, scope, value }, dirty);
    groups.set(value, [...membersOf(group), member]);
  }

  private leaveGroup(
    kind: GroupKind,
    scope: string,
    value: string | number,
    member: Member,
    dirty: Dirty,
  ): void {
    const groups = this.groupsOf(kind, scope);
    const group = membersOf(groups.get(value));
    if (group.length > 1) markGroup({ kind, scope, value }, dirty);
    const rest = group.filter((one) => one.device !== member.device || one.at !== member.at);
    const [first] = rest;
    if (first === undefined) groups.delete(value);
    else groups.set(value, rest.length === 1 ? first : rest);
  }

  private lookAtDevice(id: string): void {
    const kept = this.kept.get(id);
    if (!kept) {
      this.ofDevices.delete(id);
      return;
    }
    const { device, kind } = kept;
    const controller =
      device.controllerId === undefined ? undefined : this.kept.get(device.controllerId);
    const snags = deviceSnags({
      device,
      kind,
      controller: controller?.device,
      controllerKind: controller?.kind,
      subnet: this.subnetOf,
      other: this.deviceOf,
      isTranslated: this.isTranslated,
    });
    const leaners = this.leaners.get(id);
    keep(
      this.ofDevices,
      id,
      leaners ? joined(snags, controllerSnags(device, kind, this.devicesOf(leaners))) : snags,
    );
  }

  private readonly subnetOf = (id: string): Subnet | undefined => this.subnets.get(id);
  private readonly isTranslated = (a: string, b: string): boolean =>
    this.translated.has(`${a}|${b}`);

  private devicesOf(ids: ReadonlySet<string>): readonly Device[] {
    return [...ids].map(this.deviceOf).filter((one) => one !== undefined);
  }

  private readonly deviceOf = (id: string): Device | undefined => this.kept.get(id)?.device;

  private lookAtGroup(text: string, key: GroupKey): void {
    const group = membersOf(this.groupsOf(key.kind, key.scope).get(key.value));
    const isAlone = group.length < 2;
    keep(this.ofGroups, text, isAlone ? [] : judgeGroup(key.kind, this.inOrder([...group])));
  }

  private lookAtUse(plan: Plan, id: string): void {
    const subnet = this.subnets.get(id);
    const members = this.inOrder([...(this.members.get(id) ?? [])]);
    keep(this.ofUses, id, subnet && subnetUseSnags(plan, subnet, members));
  }

  /** Sorts members into the order of the plan, so that which is named first does not change. */
  private inOrder<M extends Member>(members: M[]): M[] {
    if (members.length < 2) return members;
    const placeOf = (one: Member) => this.places.get(one.device.id) ?? 0;
    return members.sort((a, b) => placeOf(a) - placeOf(b));
  }

  private collect(): readonly Snag[] {
    const all: Snag[] = [...this.ofSubnets, ...this.ofCables];
    for (const kept of [this.ofUses, this.ofGroups, this.ofDevices])
      for (const snags of kept.values()) all.push(...snags);
    return all.sort(
      (a, b) =>
        weight(a.severity) - weight(b.severity) ||
        compare(a.rule, b.rule) ||
        compare(a.id, b.id) ||
        compare(a.field ?? '', b.field ?? ''),
    );
  }
}

const markGroup = (key: GroupKey, dirty: Dirty): void =>
  void dirty.keys.set(`${key.kind}|${key.scope}|${key.value}`, key);

function markDirty({ device, kind }: Kept, dirty: Dirty): void {
  dirty.devices.add(device.id);
  // What a controller has to carry is told of at the controller.
  if (device.controllerId !== undefined) dirty.controllers.add(device.controllerId);
  for (const at of device.interfaces) dirty.subnets.add(at.subnetId);
  // Which addresses routers have decides whether a gateway is anybody's.
  if (kind?.forwards) dirty.routers = true;
}

const SUBNET_PARTS = ['subnets', 'blocks', 'realms'] as const;

const weight = (severity: Severity): number => SEVERITIES.indexOf(severity);

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** By value: who has it, alone in most cases and then without a list. */
type Group = Map<string | number, Member | readonly Member[]>;

const membersOf = (group: Member | readonly Member[] | undefined): readonly Member[] =>
  group === undefined ? [] : 'device' in group ? [group] : group;

const newScopes = () => new Map<string, Group>();
const newGroup = (): Group => new Map();
const newMembers = (): PlannedInterface[] => [];
const newIds = () => new Set<string>();

function into<K, V>(maps: Map<K, V>, key: K, make: () => V): V {
  let found = maps.get(key);
  if (found === undefined) maps.set(key, (found = make()));
  return found;
}

/** Only what has a snag is kept: most things have none. */
function keep<K>(lists: Map<K, readonly Snag[]>, key: K, snags: readonly Snag[] | undefined): void {
  if (snags && snags.length > 0) lists.set(key, snags);
  else lists.delete(key);
}

/** All snags of a plan, computed at once. */
export const snagsOf = (plan: Plan): readonly Snag[] => new SnagBook().update(plan);

/** Those that nobody has accepted. */
export function openSnags(plan: Plan, snags: readonly Snag[]): readonly Snag[] {
  if (plan.acceptances.length === 0) return snags;
  const accepted = new Set(plan.acceptances.map((one) => one.key));
  return snags.filter((one) => !accepted.has(snagKey(one)));
}
