import type { VigilSummary } from './series';

/** A vigil as it stands; times in milliseconds. */
export interface VigilState {
  readonly startedAt: number;
  readonly everyMillis: number;
  /** That are planned, and that have begun. */
  readonly beats: number;
  readonly begun: number;
  readonly how: 'done' | 'stopped' | undefined;
}

/** A vigil in words of seconds, as its evidence keeps it. */
export const secondsOf = (beats: number, everyMillis: number): number =>
  Math.round((beats * everyMillis) / 100) / 10;

/** One that drops out now and then is what is looked for; one that never answered is another matter. */
const isDropping = ({ lost, asked }: VigilSummary): number => (lost > 0 && lost < asked ? 1 : 0);

/** The one that needs a look stands above: who drops out, then who never answered, then by how slow it is. */
export const worstWatched = (a: VigilSummary, b: VigilSummary): number =>
  isDropping(b) - isDropping(a) ||
  b.lost / Math.max(1, b.asked) - a.lost / Math.max(1, a.asked) ||
  (b.slowest ?? 0) - (a.slowest ?? 0);
