import type { PlanDoc } from './document';
import { Draft, type Edit } from './edits';
import { sameJson, type Json } from './shape';
import type { ThingType } from './things';
import type { ThingDoc } from './thing-map';

// R-UNITE: two installations that were apart for a while become one plan again. What each of them changed is put in one
// order that is the same wherever it is computed, and done anew from where they parted.

/** A revision as it was made, wherever that was. */
export interface RevisionMade {
  /** UUID; the same wherever it was carried. */
  readonly id: string;
  /** How many revisions were known where it was made, and one: what was made in knowledge of another is behind it. */
  readonly depth: number;
  /** Milliseconds since 1970, by the clock that was there. */
  readonly at: number;
  readonly person: string;
  readonly edits: readonly Edit[];
}

/** Who made something of it, and what; undefined where it is not there. */
export interface Side {
  readonly revision: string;
  readonly person: string;
  readonly at: number;
  readonly value: Json | undefined;
}

/** Two changed the same without knowing of each other: one of them stands. */
export interface UnitedClash {
  readonly type: ThingType;
  readonly id: string;
  /** Undefined where the whole thing was removed or added. */
  readonly field: string | undefined;
  readonly stands: Side;
  readonly lost: Side;
}

export interface United {
  readonly doc: PlanDoc;
  /** Those that nobody decided since. */
  readonly clashes: readonly UnitedClash[];
}

/** First what was known to fewer, then what is older, then by name: the same order for everybody. */
const inOrder = (one: RevisionMade, other: RevisionMade): number =>
  one.depth - other.depth || one.at - other.at || (one.id < other.id ? -1 : 1);

/**
 * The plan that comes of all that was changed, wherever.
 * @param base as it was before the first of them
 * @param revisions all that are known, in any order; one that is there twice counts once
 */
export function unite(base: PlanDoc, revisions: readonly RevisionMade[]): United {
  const all = [...new Map(revisions.map((one) => [one.id, one])).values()].sort(inOrder);
  const uniting = new Uniting(base);
  for (const revision of all) uniting.take(revision);
  return { doc: uniting.draft.done(), clashes: [...uniting.clashes.values()] };
}

class Uniting {
  readonly draft: Draft;
  readonly clashes = new Map<string, UnitedClash>();
  /** Who set what last, by thing and field. */
  private readonly authors = new Map<string, RevisionMade>();

  constructor(base: PlanDoc) {
    this.draft = new Draft(base);
  }

  take(revision: RevisionMade): void {
    for (const edit of revision.edits) {
      if (edit.op === 'set') this.set(edit, revision);
      else this.whole(edit, revision);
    }
  }

  /** A field as this revision has it. Where it was another than its person saw, somebody else changed it as well. */
  private set(edit: Extract<Edit, { op: 'set' }>, made: RevisionMade): void {
    const { type, id, field, from, to } = edit;
    const now = this.draft.find(type, id);
    const key = `${type}/${id}/${field}`;
    // Whoever removed it, removed it: what was changed of it meanwhile is told.
    if (!now) {
      const gone = this.sideOf(`${type}/${id}`, undefined);
      this.clashes.set(key, { type, id, field, stands: gone, lost: sideIn(made, to) });
      return;
    }
    const value = now[field];
    // Both wanted the same: nobody loses anything.
    if (sameJson(value, to)) return;
    if (sameJson(value, from)) this.decided(key, made);
    else {
      const lost = this.sideOf(key, value);
      this.clashes.set(key, { type, id, field, stands: sideIn(made, to), lost });
      this.authors.set(key, made);
    }
    this.draft.put(edit, now);
  }

  private whole(edit: Exclude<Edit, { op: 'set' }>, made: RevisionMade): void {
    const { type, op, thing } = edit;
    const { id } = thing;
    const now = this.draft.find(type, id);
    const key = `${type}/${id}`;
    const wanted = op === 'add' ? thing : undefined;
    const seen = op === 'add' ? undefined : thing;
    if (sameThing(now, wanted)) return;
    if (sameThing(now, seen)) this.decided(key, made);
    else {
      const lost = this.sideOf(this.lastOf(type, id), now);
      this.clashes.set(key, { type, id, field: undefined, stands: sideIn(made, wanted), lost });
      this.authors.set(key, made);
    }
    this.draft.put(edit, now);
    // What clashed in it is gone with it, or anew.
    for (const one of [...this.clashes.keys()])
      if (one.startsWith(`${key}/`)) this.clashes.delete(one);
  }

  /** Somebody who saw what is there decided it. */
  private decided(key: string, made: RevisionMade): void {
    this.clashes.delete(key);
    this.authors.set(key, made);
  }

  /** Who changed something of a thing last. */
  private lastOf(type: ThingType, id: string): string {
    const own = `${type}/${id}`;
    let last = own;
    for (const key of this.authors.keys()) if (key === own || key.startsWith(`${own}/`)) last = key;
    return last;
  }

  private sideOf(key: string, value: Json | undefined): Side {
    const made = this.authors.get(key);
    // What stands since before they parted has no author here.
    return made ? sideIn(made, value) : { revision: '', person: '', at: 0, value };
  }
}

const sideIn = ({ id, person, at }: RevisionMade, value: Json | undefined): Side => ({
  ...{ revision: id, person, at, value },
});

const sameThing = (one: ThingDoc | undefined, other: ThingDoc | undefined): boolean =>
  one === undefined || other === undefined ? one === other : sameJson(one, other);
