import type { Issue } from '../net';
import { FIRST_REALM, FIRST_SETTINGS, type Plan } from './model';
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
