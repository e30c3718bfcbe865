import { sameJson, type Edit, type EditConflict } from '@ipsonomo/core/plan';

export type Choice = 'mine' | 'theirs';

export const conflictKey = ({ type, id, field }: EditConflict): string =>
  `${type}|${id}|${field ?? ''}`;

/** Can what I wanted still be done, now that somebody else was there? */
export const canBeMine = ({ field, theirs }: EditConflict): boolean =>
  field !== undefined && theirs !== undefined;

/**
 * The edits again, with every conflict decided: mine goes over what is there now, theirs stays and
 * mine is dropped. What nobody else touched is as it was.
 */
export function settle(
  edits: readonly Edit[],
  conflicts: readonly EditConflict[],
  choices: ReadonlyMap<string, Choice>,
): readonly Edit[] {
  return edits.flatMap((edit): readonly Edit[] => {
    const found = conflicts.find((one) => isAt(one, edit));
    if (!found) return [edit];
    if (edit.op !== 'set' || choices.get(conflictKey(found)) !== 'mine') return [];
    return [{ ...edit, from: found.theirs ?? null }];
  });
}

function isAt({ type, id, field, mine }: EditConflict, edit: Edit): boolean {
  if (edit.type !== type) return false;
  if (edit.op !== 'set') return edit.thing.id === id && field === undefined;
  return edit.id === id && edit.field === field && sameJson(edit.to, mine ?? null);
}
