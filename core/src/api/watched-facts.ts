import type { FactsOf } from '../plan';
import { secondsOf, type VigilSummary } from '../vigil';

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
