import { fail, ok, type Issue, type Result, type Misfit } from '../net';
import { faceDefects } from '../switches';
import { type PlanDoc, readThing } from './document';
import { faceShape } from './kind';
import { madeFrom } from './plan-of';
import { sameJson, type Json, type JsonObject } from './shape';
import { shapeOf, THING_TYPES, type ThingType } from './things';
import type { ThingDoc } from './thing-map';

/** One change of a plan. `from` is what the person saw who made it, so nothing is lost unseen. */
export type Edit =
  | { readonly op: 'add'; readonly type: ThingType; readonly thing: ThingDoc }
  | { readonly op: 'remove'; readonly type: ThingType; readonly thing: ThingDoc }
  | {
      readonly op: 'set';
      readonly type: ThingType;
      readonly id: string;
      readonly field: string;
      readonly from: Json;
      readonly to: Json;
    };

/**
 * Two people changed the same: `base` is what both saw, `theirs` what is there now, `mine` what was
 * wanted. Undefined stands for "not there".
 */
export interface EditConflict {
  readonly type: ThingType;
  readonly id: string;
  /** Undefined where the whole thing was removed or added. */
  readonly field: string | undefined;
  readonly base: Json | undefined;
  readonly theirs: Json | undefined;
  readonly mine: Json | undefined;
}

/**
 * R-MERGE: applies edits to what is there now. Fields that nobody else touched merge; a field that is
 * no longer what the person saw is a conflict, and then nothing at all is applied.
 * @returns the document and the edits that changed something (one that is there already is none)
 */
export function applyEdits(
  doc: PlanDoc,
  edits: readonly Edit[],
): Result<{ readonly doc: PlanDoc; readonly applied: readonly Edit[] }, readonly EditConflict[]> {
  const next = new Draft(doc);
  const conflicts: EditConflict[] = [];
  const applied: Edit[] = [];
  for (const edit of edits) {
    const before = next.find(edit.type, idOf(edit));
    const outcome = outcomeOf(edit, before);
    if (outcome === 'there') continue;
    if (outcome !== 'apply') conflicts.push(outcome);
    else {
      next.put(edit, before);
      applied.push(edit);
    }
  }
  if (conflicts.length > 0) return fail(conflicts);
  const made = next.done();
  if (made !== doc) madeFrom(made, doc);
  return ok({ doc: made, applied });
}

const idOf = (edit: Edit): string => (edit.op === 'set' ? edit.id : edit.thing.id);

function outcomeOf(edit: Edit, now: ThingDoc | undefined): 'apply' | 'there' | EditConflict {
  const { type } = edit;
  if (edit.op === 'set') {
    const { id, field, from: base, to: mine } = edit;
    const theirs = now?.[field];
    if (now && sameJson(theirs, mine)) return 'there';
    if (now && sameJson(theirs, base)) return 'apply';
    return { type, id, field, base, theirs, mine };
  }
  const { thing } = edit;
  const whole = { type, id: thing.id, field: undefined, theirs: now };
  if (edit.op === 'add') {
    if (!now) return 'apply';
    return sameJson(now, thing) ? 'there' : { ...whole, base: undefined, mine: thing };
  }
  if (!now) return 'there';
  return sameJson(now, thing) ? 'apply' : { ...whole, base: thing, mine: undefined };
}

/** What becomes of the things of one type. */
interface Changes {
  readonly changed: Map<string, ThingDoc>;
  readonly removed: Set<string>;
}

/** A document in the making: only what changes is copied. */
export class Draft {
  private readonly own = new Map<ThingType, Changes>();

  constructor(private readonly doc: PlanDoc) {}

  find(type: ThingType, id: string): ThingDoc | undefined {
    const own = this.own.get(type);
    const changed = own?.changed.get(id);
    if (changed !== undefined || own?.removed.has(id)) return changed;
    return this.doc[type].get(id);
  }

  put(edit: Edit, before: ThingDoc | undefined): void {
    let own = this.own.get(edit.type);
    if (!own) this.own.set(edit.type, (own = { changed: new Map(), removed: new Set() }));
    if (edit.op === 'remove') {
      own.changed.delete(edit.thing.id);
      own.removed.add(edit.thing.id);
    } else if (edit.op === 'add') own.changed.set(edit.thing.id, edit.thing);
    else if (before) own.changed.set(edit.id, { ...before, [edit.field]: edit.to });
  }

  done(): PlanDoc {
    if (this.own.size === 0) return this.doc;
    const made = Array.from(this.own, ([type, { changed, removed }]) => [
      type,
      this.doc[type].with(changed, removed),
    ]);
    return { ...this.doc, ...Object.fromEntries(made) } as PlanDoc;
  }
}

/** What takes these edits back, in the order in which it has to be done. */
export const inverseOf = (edits: readonly Edit[]): readonly Edit[] =>
  edits.toReversed().map((edit): Edit => {
    if (edit.op === 'add') return { ...edit, op: 'remove' };
    if (edit.op === 'remove') return { ...edit, op: 'add' };
    return { ...edit, from: edit.to, to: edit.from };
  });

/** What makes one document of another. @example diffDocs(doc, doc) // [] */
export function diffDocs(before: PlanDoc, after: PlanDoc): readonly Edit[] {
  const edits: Edit[] = [];
  for (const type of THING_TYPES) {
    if (before[type] === after[type]) continue;
    for (const thing of before[type].values())
      if (!after[type].has(thing.id)) edits.push({ op: 'remove', type, thing });
    for (const thing of after[type].values()) {
      const old = before[type].get(thing.id);
      if (!old) edits.push({ op: 'add', type, thing });
      else edits.push(...diffThing(type, old, thing));
    }
  }
  return edits;
}

/** The fields in which two states of a thing differ. */
function diffThing(type: ThingType, before: ThingDoc, after: ThingDoc): readonly Edit[] {
  if (before === after) return [];
  return Object.keys(shapeOf(type).fields).flatMap((field): Edit[] => {
    const [from = null, to = null] = [before[field], after[field]];
    if (sameJson(from, to)) return [];
    return [{ op: 'set', type, id: before.id, field, from, to }];
  });
}

/** The change of some fields of a thing as edits. */
export const changeOf = (
  type: ThingType,
  thing: ThingDoc,
  fields: Readonly<Record<string, Json>>,
): readonly Edit[] => diffThing(type, thing, { ...thing, ...fields });

/**
 * Reads edits as they come in: every thing and every field in its shape.
 * @returns all that is wrong with them, each with its path
 */
export function readEdits(json: readonly JsonObject[]): Result<readonly Edit[], readonly Issue[]> {
  const issues: Issue[] = [];
  const edits = json.flatMap((one, index) => {
    const edit = readEdit(one, `edits.${index}`, issues);
    return edit ? [edit] : [];
  });
  return issues.length > 0 ? fail(issues) : ok(edits);
}

function readEdit(json: JsonObject, path: string, issues: Issue[]): Edit | undefined {
  const { op, type: name } = json;
  const type = THING_TYPES.find((one) => one === name);
  const bad = (where: string, facts: Misfit): undefined => {
    issues.push({ code: 'file.value', where: `${path}.${where}`, facts });
    return undefined;
  };
  if (!type) return bad('type', { misfit: 'choice', options: THING_TYPES.join(', ') });
  if (op === 'add' || op === 'remove') {
    const thing = readThing(type, json['thing'] ?? null, `${path}.thing`, issues);
    const isGood = op === 'remove' || type !== 'kind' || isFaceWhole(thing?.['switches'], issues);
    return thing && isGood ? { op, type, thing } : undefined;
  }
  if (op !== 'set') return bad('op', { misfit: 'choice', options: 'add, remove, set' });
  const { id, field, from = null, to = null } = json;
  if (typeof id !== 'string') return bad('id', { misfit: 'text' });
  const { fields } = shapeOf(type);
  // Its own fields: every object answers to `toString`.
  const shape =
    typeof field === 'string' && Object.hasOwn(fields, field) ? fields[field] : undefined;
  if (!shape || typeof field !== 'string' || field === 'id')
    return bad('field', { misfit: 'unknown' });
  const before = issues.length;
  const value = shape.read(to, `${path}.to`, issues);
  if (type === 'kind' && field === 'switches') isFaceWhole(to, issues);
  return issues.length > before ? undefined : { op, type, id, field, from, to: shape.write(value) };
}

/** A drawing by which nobody could set a switch is not taken; one that stands in a plan stays. */
function isFaceWhole(json: Json | undefined, issues: Issue[]): boolean {
  const face = faceShape.read(json ?? null, 'switches', []);
  const defects = face ? faceDefects(face) : [];
  issues.push(...defects);
  return defects.length === 0;
}

/** The plan as it was before these edits; undefined where they are not its last ones. */
export function docBefore(doc: PlanDoc, edits: readonly Edit[]): PlanDoc | undefined {
  const outcome = applyEdits(doc, inverseOf(edits));
  return outcome.ok ? outcome.value.doc : undefined;
}
