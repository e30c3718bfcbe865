import type { Issue } from '../net';
import {
  FIRST_REALM,
  FIRST_SETTINGS,
  type Device,
  type Interface,
  type Plan,
  type PlanSettings,
} from './model';
import { isObject, type Json, type JsonObject } from './shape';
import { shapeOf, THING_TYPES, type Thing, type ThingType } from './things';

/** A thing as text: what is stored, sent, compared and written to a plan file. */
export type ThingDoc = JsonObject & { readonly id: string };

type Docs = ReadonlyMap<string, ThingDoc>;

/** The whole plan as text, each type in the order in which its things came. */
export type PlanDoc = Readonly<Record<ThingType, Docs>>;

const none: Docs = new Map();

export const EMPTY_DOC: PlanDoc = {
  settings: none,
  realm: none,
  block: none,
  subnet: none,
  kind: none,
  device: none,
  interface: none,
  cable: none,
  freed: none,
  acceptance: none,
};

/** A new plan: one realm, our own settings. */
export const firstDoc = (): PlanDoc => ({
  ...EMPTY_DOC,
  settings: new Map([['settings', docOf('settings', FIRST_SETTINGS)]]),
  realm: new Map([[FIRST_REALM.id, docOf('realm', FIRST_REALM)]]),
});

/** A thing as text. */
export const docOf = <T extends ThingType>(type: T, thing: Thing<T>): ThingDoc =>
  shapeOf(type).write(thing) as ThingDoc;

export const findDoc = (doc: PlanDoc, type: ThingType, id: string): ThingDoc | undefined =>
  doc[type].get(id);

/**
 * Reads one thing; what is missing and may be is filled in, so that a plan of an older version is
 * whole again.
 * @param path what stands before the field in an issue, `device.3`
 */
export function readThing(
  type: ThingType,
  json: Json,
  path: string,
  issues: Issue[],
): ThingDoc | undefined {
  const shape = shapeOf(type);
  const value = shape.read(json, path, issues);
  return value === undefined ? undefined : (shape.write(value) as ThingDoc);
}

/** The things of a plan as text, to a document. Things of one type need ids of their own. */
export function docFromThings(
  things: Iterable<readonly [type: ThingType, thing: ThingDoc]>,
): PlanDoc {
  const maps = Object.fromEntries(THING_TYPES.map((type) => [type, new Map<string, ThingDoc>()]));
  for (const [type, thing] of things) maps[type]?.set(thing.id, thing);
  return maps as unknown as PlanDoc;
}

// Plans are read from documents thing by thing, and what was read is kept beside the text: after an
// edit only what changed is read again, and everything else stays the same object.

const readOnce = new WeakMap<ThingDoc, unknown>();

function valueOf<T extends ThingType>(type: T, doc: ThingDoc): Thing<T> {
  const known = readOnce.get(doc);
  if (known !== undefined) return known as Thing<T>;
  const issues: Issue[] = [];
  const value = shapeOf(type).read(doc, type, issues);
  // Documents are checked where they come in; one that cannot be read here is a programmer's error.
  if (value === undefined) throw new Error(`unreadable ${type}: ${JSON.stringify(issues)}`);
  readOnce.set(doc, value);
  return value as Thing<T>;
}

const listOnce = new WeakMap<Docs, readonly unknown[]>();

function listOf<T extends ThingType>(type: T, docs: Docs): readonly Thing<T>[] {
  const known = listOnce.get(docs);
  if (known) return known as readonly Thing<T>[];
  const list = Array.from(docs.values(), (doc) => valueOf(type, doc));
  listOnce.set(docs, list);
  return list;
}

const deviceOnce = new WeakMap<ThingDoc, Device>();

function devicesOf(doc: PlanDoc): readonly Device[] {
  const byDevice = new Map<string, Interface[]>();
  for (const at of listOf('interface', doc.interface)) {
    const list = byDevice.get(at.deviceId);
    if (list) list.push(at);
    else byDevice.set(at.deviceId, [at]);
  }
  return Array.from(doc.device.values(), (one) => deviceOf(one, byDevice.get(one.id) ?? []));
}

function deviceOf(doc: ThingDoc, interfaces: readonly Interface[]): Device {
  const known = deviceOnce.get(doc);
  if (known && isSameList(known.interfaces, interfaces)) return known;
  const device = { ...valueOf('device', doc), interfaces };
  deviceOnce.set(doc, device);
  return device;
}

const isSameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((one, index) => one === b[index]);

const planOnce = new WeakMap<PlanDoc, Plan>();

/** The plan of a document. Interfaces of a device that is gone are left out. */
export function planOf(doc: PlanDoc): Plan {
  const known = planOnce.get(doc);
  if (known) return known;
  const [settings] = listOf('settings', doc.settings) as readonly PlanSettings[];
  const plan: Plan = {
    settings: settings ?? FIRST_SETTINGS,
    realms: listOf('realm', doc.realm),
    blocks: listOf('block', doc.block),
    subnets: sortedSubnets(doc),
    kinds: listOf('kind', doc.kind),
    devices: devicesOf(doc),
    cables: listOf('cable', doc.cable),
    freed: listOf('freed', doc.freed),
    acceptances: listOf('acceptance', doc.acceptance),
  };
  planOnce.set(doc, plan);
  return plan;
}

const sortedOnce = new WeakMap<Docs, readonly Thing<'subnet'>[]>();

/** In the order of their networks. */
function sortedSubnets(doc: PlanDoc): readonly Thing<'subnet'>[] {
  const known = sortedOnce.get(doc.subnet);
  if (known) return known;
  const sorted = [...listOf('subnet', doc.subnet)].sort(
    (a, b) => a.prefix.network - b.prefix.network || a.prefix.length - b.prefix.length,
  );
  sortedOnce.set(doc.subnet, sorted);
  return sorted;
}

/** The document of a plan; the other way of `planOf`. */
export function docOfPlan(plan: Plan): PlanDoc {
  const docs = <T extends ThingType>(type: T, things: readonly Thing<T>[]): Docs =>
    new Map(things.map((thing) => [(thing as { id: string }).id, docOf(type, thing)]));
  return {
    settings: docs('settings', [plan.settings]),
    realm: docs('realm', plan.realms),
    block: docs('block', plan.blocks),
    subnet: docs('subnet', plan.subnets),
    kind: docs('kind', plan.kinds),
    device: docs('device', plan.devices),
    interface: docs(
      'interface',
      plan.devices.flatMap((device) => device.interfaces),
    ),
    cable: docs('cable', plan.cables),
    freed: docs('freed', plan.freed),
    acceptance: docs('acceptance', plan.acceptances),
  };
}

export const isThingDoc = (json: unknown): json is ThingDoc =>
  isObject(json) && typeof json['id'] === 'string';
