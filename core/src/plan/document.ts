import type { Issue } from '../net';
import { FIRST_REALM, FIRST_SETTINGS, type Plan } from './model';
import { type Json } from './shape';
import { ThingMap, type ThingDoc } from './thing-map';
import { keepValue } from './thing-value';
import { shapeOf, THING_TYPES, type Thing, type ThingType } from './things';

/** The whole plan as text, each type in the order in which its things came. */
export type PlanDoc = Readonly<Record<ThingType, ThingMap>>;

const none = ThingMap.of([]);

const EMPTY_DOC: PlanDoc = {
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
  settings: ThingMap.of([docOf('settings', FIRST_SETTINGS)]),
  realm: ThingMap.of([docOf('realm', FIRST_REALM)]),
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
  if (value === undefined) return undefined;
  const doc = shape.write(value) as ThingDoc;
  keepValue(doc, value);
  return doc;
}

/** The things of a plan as text, to a document. Things of one type need ids of their own. */
export function docFromThings(
  things: Iterable<readonly [type: ThingType, thing: ThingDoc]>,
): PlanDoc {
  const lists = new Map(THING_TYPES.map((type): [ThingType, ThingDoc[]] => [type, []]));
  for (const [type, thing] of things) lists.get(type)?.push(thing);
  return Object.fromEntries(
    [...lists].map(([type, list]) => [type, ThingMap.of(list)]),
  ) as unknown as PlanDoc;
}

/** The document of a plan; the other way of `planOf`. */
export function docOfPlan(plan: Plan): PlanDoc {
  const docs = <T extends ThingType>(type: T, things: readonly Thing<T>[]): ThingMap =>
    ThingMap.of(things.map((thing) => docOf(type, thing)));
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
