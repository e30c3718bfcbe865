import type { FactsOf } from '@ipsonomo/core/plan';
import { watchedFacts } from '@ipsonomo/core/api';
import type { VigilSummary } from '@ipsonomo/core/vigil';

/** What a vigil says of one device, by the facts of its evidence. */
export function watchedWords(facts: FactsOf<'watched-over'>): string {
  const { asked, lost, longestSeconds, periodSeconds, slowestMillis } = facts;
  const slow = slowestMillis === undefined ? '' : `, the slowest after ${slowestMillis} ms`;
  if (lost === 0) return `all of ${asked} answered${slow}`;
  if (lost === asked) return `none of ${asked} answered`;
  const beat = periodSeconds === undefined ? '' : `, every ${periodSeconds} s`;
  return `${lost} of ${asked} lost${beat}, the longest for ${longestSeconds} s${slow}`;
}

/** A summary in words, while it goes on. */
export const vigilWords = (summary: VigilSummary, everyMillis: number): string =>
  summary.asked === 0 ? 'not asked yet' : watchedWords(watchedFacts(summary, everyMillis));
