import type { ClashView } from '@ipsonomo/core/api';
import { sameJson, type Edit, type PlanDoc, type ThingDoc } from '@ipsonomo/core/plan';

/** What makes the other side of a clash stand; undefined where that is no single step: it is done in the plan then. */
export function otherSide(clash: ClashView, doc: PlanDoc): Edit | undefined {
  const { type, id, field, stands, lost } = clash;
  const now = doc[type].get(id);
  if (field !== null) {
    // Somebody may have changed it again since this was shown.
    if (!now || !sameJson(now[field], stands.value ?? null)) return undefined;
    return { op: 'set', type, id, field, from: now[field] ?? null, to: lost.value ?? null };
  }
  if (now) return lost.value === undefined ? { op: 'remove', type, thing: now } : undefined;
  return lost.value === undefined ? undefined : { op: 'add', type, thing: lost.value as ThingDoc };
}
