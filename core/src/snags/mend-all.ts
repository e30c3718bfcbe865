import { applyEdits, diffDocs, planOf, type Edit, type PlanDoc } from '../plan';
import { SnagBook } from './book';
import { mendOf, type Mend } from './mend';
import { snagKey, type Snag } from './snag';

/** What mending several snags one after the other comes to. */
export interface MendedAll {
  /** Each with the mend that was right when its turn came. */
  readonly mends: readonly (readonly [snag: Snag, mend: Mend])[];
  readonly edits: readonly Edit[];
}

/**
 * Mends snags in their order, each on the plan that the ones before left: so two devices are never
 * given the same free address, and a snag that went with another is left alone. What only a person can
 * know is left.
 * @param now milliseconds since 1970
 */
export function mendAll(doc: PlanDoc, snags: readonly Snag[], now: number): MendedAll {
  const book = new SnagBook();
  const mends: (readonly [Snag, Mend])[] = [];
  let current = doc;
  let standing = keysOf(book, current);
  for (const snag of snags)
    // Three devices of one address are one snag that takes two mends.
    for (let turn = 0; turn <= snag.also.length; turn += 1) {
      const there = standing.get(snagKey(snag));
      const mend = there && mendOf(planOf(current), there, now);
      const done = mend && applyEdits(current, mend.edits);
      if (!there || !mend || !done?.ok) break;
      current = done.value.doc;
      standing = keysOf(book, current);
      mends.push([there, mend]);
    }
  return { mends, edits: diffDocs(doc, current) };
}

const keysOf = (book: SnagBook, doc: PlanDoc): ReadonlyMap<string, Snag> =>
  new Map(book.update(planOf(doc)).map((snag) => [snagKey(snag), snag]));
