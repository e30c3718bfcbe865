import type { Left } from './views';

export interface Rehearsed {
  /** Null where that job is gone. */
  readonly id: string | null;
  readonly name: string;
}

export interface JobSummary {
  readonly id: string;
  readonly name: string;
  /** The job whose plan it rehearses, by the name it had then; null where it is no rehearsal. */
  readonly rehearses: Rehearsed | null;
  /** Put away: it is not among those that are worked on. */
  readonly archived: boolean;
  /** A practice site with the devices of its plan ships with Ipsonomo. */
  readonly hasPracticeSite: boolean;
  /** Null while they are counted. */
  readonly counts: JobCounts | null;
}

export interface JobCounts {
  readonly subnets: number;
  readonly devices: number;
  readonly left: Left;
}
