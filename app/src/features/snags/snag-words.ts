import type { Plan } from '@ipsonomo/core/plan';
import { openSnags, SEVERITIES, type Snag } from '@ipsonomo/core/snags';
import { plural } from '../words';

/** @example "2 wrong, 1 doubtful, 3 hints" or "No snags" */
export function snagWords(plan: Plan, snags: readonly Snag[]): string {
  const open = openSnags(plan, snags);
  const accepted = snags.length - open.length;
  const counts = SEVERITIES.flatMap((severity) => {
    const count = open.filter((one) => one.severity === severity).length;
    if (count === 0) return [];
    return [severity === 'hint' ? plural(count, 'hint') : `${count} ${severity}`];
  });
  const words = counts.length > 0 ? counts.join(', ') : 'No snags';
  return accepted > 0 ? `${words}; ${accepted} accepted` : words;
}
