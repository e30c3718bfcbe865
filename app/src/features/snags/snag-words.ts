import type { Plan } from '@ipsonomo/core/plan';
import { openSnags, SEVERITIES, type Snag } from '@ipsonomo/core/snags';
import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';

const COUNTED = {
  wrong: SNAGS_WORDS.wrong,
  doubtful: SNAGS_WORDS.doubtful,
  hint: SNAGS_WORDS.hint,
};

/** @example "2 wrong, 1 doubtful, 3 hints" or "No snags" */
export function snagWords(plan: Plan, snags: readonly Snag[]): string {
  const open = openSnags(plan, snags);
  const accepted = snags.length - open.length;
  const counts = SEVERITIES.flatMap((severity) => {
    const count = open.filter((one) => one.severity === severity).length;
    if (count === 0) return [];
    return [COUNTED[severity]({ count })];
  });
  const words = counts.length > 0 ? counts.join(', ') : SNAGS_WORDS.noSnags;
  return accepted > 0 ? SNAGS_WORDS.accepted2({ words, accepted }) : words;
}
