import type { Side, ThingType } from '../plan';

// Two installations that were apart are made one again.

/** What was taken in from another laptop. */
export interface BundleTaken {
  readonly jobId: string;
  readonly name: string;
  /** The job was not here before. */
  readonly isNew: boolean;
  /** Whose it is. */
  readonly from: string;
  /** Revisions and pieces of evidence that were not known here. */
  readonly revisions: number;
  readonly evidence: number;
  /** Where both changed the same, and nobody decided yet. */
  readonly clashes: number;
}

export interface ClashView {
  readonly type: ThingType;
  readonly id: string;
  /** Null where the whole thing was removed or added. */
  readonly field: string | null;
  /** What it is called in the plan, or was called. */
  readonly title: string;
  readonly stands: Side;
  readonly lost: Side;
}

export interface JoinedView {
  /** The last first. */
  readonly taken: readonly {
    readonly serverName: string;
    readonly at: number;
    readonly person: string;
    readonly revisions: number;
    readonly evidence: number;
  }[];
  readonly clashes: readonly ClashView[];
}
