import type { Left } from './views';

export interface JobSummary {
  readonly id: string;
  readonly name: string;
  /** The name of the job whose plan it rehearses; null where it is no rehearsal. */
  readonly rehearses: string | null;
  /** Put away: it is not among those that are worked on. */
  readonly archived: boolean;
  /** Null while they are counted. */
  readonly counts: JobCounts | null;
}

export interface JobCounts {
  readonly subnets: number;
  readonly devices: number;
  readonly left: Left;
}
