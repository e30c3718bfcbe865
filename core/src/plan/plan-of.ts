import type { PlanDoc } from './document';
import { FIRST_SETTINGS, type Device, type Interface, type Plan, type PlanSettings } from './model';
import { THING_TYPES, type Thing, type ThingType } from './things';
import { valueOf } from './thing-value';

// Plans are read from documents thing by thing, and what was read is kept beside the text. After an
// edit only what changed is read again, and everything else stays the same object: whoever compares
// by identity, as the snags and the screens do, sees at once what is new.

type Lists = { readonly [T in ThingType]: readonly Thing<T>[] };

interface Reading {
  readonly doc: PlanDoc;
  readonly lists: Lists;
  readonly plan: Plan;
}

const readings = new WeakMap<PlanDoc, Reading>();
const sources = new WeakMap<PlanDoc, PlanDoc>();

/** Says which document another was made from by edits; its plan is then read from the difference. */
export function madeFrom(doc: PlanDoc, source: PlanDoc): void {
  if (readings.has(source)) sources.set(doc, source);
}

/** The plan of a document. Interfaces of a device that is gone are left out. */
export function planOf(doc: PlanDoc): Plan {
  const known = readings.get(doc);
  if (known) return known.plan;
  const source = sources.get(doc);
  const reading = read(doc, source && readings.get(source));
  // Let go of the document before, or all of them would stay as long as the last.
  sources.delete(doc);
  readings.set(doc, reading);
  return reading.plan;
}

function read(doc: PlanDoc, base: Reading | undefined): Reading {
  const lists = Object.fromEntries(
    THING_TYPES.map((type) => [type, listOf(type, doc, base)]),
  ) as unknown as Lists;
  const [settings] = lists.settings as readonly PlanSettings[];
  const plan: Plan = {
    settings: settings ?? FIRST_SETTINGS,
    realms: lists.realm,
    blocks: lists.block,
    subnets: lists.subnet === base?.lists.subnet ? base.plan.subnets : inOrder(lists.subnet),
    kinds: lists.kind,
    devices: devicesOf(lists, doc, base),
    cables: lists.cable,
    freed: lists.freed,
    acceptances: lists.acceptance,
  };
  return { doc, lists, plan };
}

/** In the order of their networks. */
const inOrder = (subnets: readonly Thing<'subnet'>[]): readonly Thing<'subnet'>[] =>
  [...subnets].sort(
    (a, b) => a.prefix.network - b.prefix.network || a.prefix.length - b.prefix.length,
  );

function listOf<T extends ThingType>(
  type: T,
  doc: PlanDoc,
  base: Reading | undefined,
): readonly Thing<T>[] {
  const { list } = doc[type];
  if (!base) return list.map((one) => valueOf(type, one));
  if (base.doc[type].list === list) return base.lists[type] as readonly Thing<T>[];
  // In step with the list before: what stands at the same place is not even looked up.
  const before = base.doc[type].list;
  const values = base.lists[type] as readonly Thing<T>[];
  return list.map((one, index) => {
    const same = before[index] === one ? values[index] : undefined;
    return same ?? valueOf(type, one);
  });
}

function devicesOf(lists: Lists, doc: PlanDoc, base: Reading | undefined): readonly Device[] {
  const again = base && devicesAgain(lists, doc, base);
  if (again) return again;
  const changed = base && changedDevices(lists, base.lists);
  const byDevice = new Map<string, Interface[]>();
  for (const at of lists.interface) {
    if (changed && !changed.has(at.deviceId)) continue;
    const list = byDevice.get(at.deviceId);
    if (list) list.push(at);
    else byDevice.set(at.deviceId, [at]);
  }
  return lists.device.map((one, index) => {
    const same = changed && !changed.has(one.id) ? base?.plan.devices[index] : undefined;
    return same ?? deviceOf(one, byDevice.get(one.id) ?? []);
  });
}

/**
 * The devices made from those of before: where no thing came, went or moved to another device, which is nearly always,
 * what did not change is not looked at.
 * @returns undefined where that is not so
 */
function devicesAgain(now: Lists, doc: PlanDoc, base: Reading): readonly Device[] | undefined {
  const before = base.lists;
  if (now.device === before.device && now.interface === before.interface) return base.plan.devices;
  if (now.interface.length !== before.interface.length) return undefined;
  if (now.device.length !== before.device.length) return undefined;
  const newer = new Map<Interface, Interface>();
  const due = new Set<number>();
  for (const [index, at] of now.interface.entries()) {
    const old = before.interface[index];
    if (old === at) continue;
    if (old?.id !== at.id || old.deviceId !== at.deviceId) return undefined;
    newer.set(old, at);
    const place = doc.device.indexOf(at.deviceId);
    if (place !== undefined) due.add(place);
  }
  for (const [index, one] of now.device.entries()) {
    if (before.device[index] === one) continue;
    if (before.device[index]?.id !== one.id) return undefined;
    due.add(index);
  }
  const devices = [...base.plan.devices];
  for (const index of due) {
    const interfaces = base.plan.devices[index]?.interfaces.map((at) => newer.get(at) ?? at);
    devices[index] = deviceOf(now.device[index] as Thing<'device'>, interfaces ?? []);
  }
  return devices;
}

/** The devices that are not at the same place with the same things in both. */
function changedDevices(now: Lists, before: Lists): ReadonlySet<string> {
  const changed = new Set<string>();
  now.device.forEach((one, index) => {
    if (before.device[index] !== one) changed.add(one.id);
  });
  if (now.interface === before.interface) return changed;
  const count = Math.max(now.interface.length, before.interface.length);
  for (let index = 0; index < count; index += 1) {
    const [a, b] = [now.interface[index], before.interface[index]];
    if (a === b) continue;
    if (a) changed.add(a.deviceId);
    if (b) changed.add(b.deviceId);
  }
  return changed;
}

const deviceOnce = new WeakMap<Thing<'device'>, Device>();

function deviceOf(one: Thing<'device'>, interfaces: readonly Interface[]): Device {
  const known = deviceOnce.get(one);
  if (known && isSameList(known.interfaces, interfaces)) return known;
  // In this order: V8 gives each object that is spread and then added to a layout of its own, and
  // reading the fields of thousands of layouts is twice as slow.
  const device = { interfaces, ...one };
  deviceOnce.set(one, device);
  return device;
}

const isSameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((one, index) => one === b[index]);
