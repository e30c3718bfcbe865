import type { RoundEstimate } from '../round';

/** How a round would be walked. */
export interface RoundTimesWish {
  /** 1 to 4 of them. */
  readonly people: number;
  /** Interfaces in the order in which they are walked; the calls that are left in their best order where not given. */
  readonly order?: readonly string[];
}

/** How long that would take. */
export type RoundTimes = RoundEstimate;
