import type { RevisionEdits } from '@ipsonomo/core/api';
import type { Edit, Plan } from '@ipsonomo/core/plan';
import { snagKey, type Snag } from '@ipsonomo/core/snags';

// Two people change different things, both changes are kept, and together they make a wrong snag: two
// devices with one address. Each of the two has to be told, whoever came second.

/** A wrong snag that came of what I changed and what somebody else changed meanwhile. */
export interface Clash {
  readonly snag: Snag;
  /** Who else; no name twice. */
  readonly people: readonly string[];
}

const idOf = (edit: Edit): string => (edit.op === 'set' ? edit.id : edit.thing.id);

/** What this page knows of who changed what in one job since it was opened. */
export class ChangeWatch {
  private readonly mine = new Set<number>();
  private readonly myThings = new Set<string>();
  private readonly heard = new Map<number, RevisionEdits>();
  private wrong: ReadonlyMap<string, Snag> | undefined;
  private candidates = new Map<string, Snag>();

  /** A change of mine was made. */
  noteMine(revision: number, edits: readonly Edit[]): void {
    this.mine.add(revision);
    for (const edit of edits) this.myThings.add(idOf(edit));
  }

  /** Revisions that were read; mine may be among them, before or after their answer came. */
  noteRead(revisions: readonly RevisionEdits[]): void {
    for (const one of revisions) this.heard.set(one.number, one);
  }

  /** The snags as they stand now: those that are new since the last time are looked at. */
  look(snags: readonly Snag[]): void {
    const wrong = new Map(
      snags.flatMap((one) => (one.severity === 'wrong' ? [[snagKey(one), one] as const] : [])),
    );
    for (const key of this.candidates.keys()) if (!wrong.has(key)) this.candidates.delete(key);
    if (this.wrong)
      for (const [key, snag] of wrong) if (!this.wrong.has(key)) this.candidates.set(key, snag);
    this.wrong = wrong;
  }

  /** Which of the new ones are mine together with somebody else's. */
  clashes(plan: Plan): readonly Clash[] {
    return [...this.candidates.values()].flatMap((snag) => {
      const things = thingsOf(plan, snag);
      if (!things.some((id) => this.myThings.has(id))) return [];
      const people = [...this.heard.values()]
        .filter(
          ({ number, edits }) =>
            !this.mine.has(number) && edits.some((one) => things.includes(idOf(one))),
        )
        .map(({ person }) => person);
      return people.length > 0 ? [{ snag, people: [...new Set(people)] }] : [];
    });
  }
}

/** What a snag is at, and the devices of its interfaces with all that is theirs. */
function thingsOf(plan: Plan, { id, also }: Snag): readonly string[] {
  const named = new Set([id, ...also]);
  return plan.devices.reduce<string[]>(
    (all, device) => {
      const own = [device.id, ...device.interfaces.map((at) => at.id)];
      return own.some((one) => named.has(one)) ? [...all, ...own] : all;
    },
    [...named],
  );
}

const watches = new Map<string, ChangeWatch>();

/** The watch of a job, one for the page. */
export function watchOf(job: string): ChangeWatch {
  let watch = watches.get(job);
  if (!watch) watches.set(job, (watch = new ChangeWatch()));
  return watch;
}
