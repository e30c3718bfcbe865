import { CAUSES, type CauseId, type CauseRule } from './rules';
import { SIGNS, type Countersign, type Sign } from './signs';

/** A cause that fits what was seen. */
export interface LikelyCause {
  readonly rule: CauseRule<CauseId>;
  readonly explains: readonly Sign[];
  /** What was seen and is not explained by it. */
  readonly unexplained: readonly Sign[];
}

/**
 * R-CAUSES: the causes whose evidence is there and that nothing excludes: those that leave the fewest facts unexplained
 * first, of those the one whose test is cheapest.
 */
export function likelyCauses(signs: ReadonlySet<Sign | Countersign>): readonly LikelyCause[] {
  const seen = SIGNS.filter((sign) => signs.has(sign));
  return CAUSES.filter(
    ({ needs, excludes }) =>
      needs.every((one) => signs.has(one)) && !excludes.some((one) => signs.has(one)),
  )
    .map((rule) => ({
      rule,
      explains: seen.filter((sign) => rule.explains.includes(sign)),
      unexplained: seen.filter((sign) => !rule.explains.includes(sign)),
    }))
    .sort((a, b) => a.unexplained.length - b.unexplained.length || a.rule.minutes - b.rule.minutes);
}
