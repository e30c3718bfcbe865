import type { FactsOf } from '../plan';
import { secondsOf, type VigilSummary } from '../vigil';

/** What a vigil says of one device, by the facts of its evidence. */
export function watchedWords(facts: FactsOf<'watched-over'>): string {
  const { asked, lost, longestSeconds, periodSeconds, slowestMillis } = facts;
  const slow = slowestMillis === undefined ? '' : `, the slowest after ${slowestMillis} ms`;
  if (lost === 0) return `all of ${asked} answered${slow}`;
  if (lost === asked) return `none of ${asked} answered`;
  const beat = periodSeconds === undefined ? '' : `, every ${periodSeconds} s`;
  return `${lost} of ${asked} lost${beat}, the longest for ${longestSeconds} s${slow}`;
}

/** The facts that are kept of a summary. */
export function watchedFacts(summary: VigilSummary, everyMillis: number): FactsOf<'watched-over'> {
  const { asked, lost, mean, slowest, outages, longest, period } = summary;
  return {
    ...{ asked, lost, outages, longestSeconds: secondsOf(longest, everyMillis) },
    ...(mean === undefined ? {} : { meanMillis: Math.round(mean * 10) / 10 }),
    ...(slowest === undefined ? {} : { slowestMillis: slowest }),
    ...(period === undefined ? {} : { periodSeconds: secondsOf(period, everyMillis) }),
  };
}

/** A summary in words, while it goes on. */
export const vigilWords = (summary: VigilSummary, everyMillis: number): string =>
  summary.asked === 0 ? 'not asked yet' : watchedWords(watchedFacts(summary, everyMillis));
