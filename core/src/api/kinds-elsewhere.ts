import type { Kind } from '../plan';

/** Kinds that another job of this installation has of its own, and this one has not, or has otherwise. */
export interface KindsElsewhere {
  readonly job: string;
  readonly name: string;
  readonly kinds: readonly KindElsewhere[];
}

export interface KindElsewhere extends Pick<
  Kind,
  'id' | 'maker' | 'name' | 'orderNumber' | 'revision'
> {
  /** `other`: this job has a kind of this id that says something else. */
  readonly state: 'new' | 'other';
}

/** What became of kinds that were offered to a plan. */
export interface KindsTaken {
  readonly taken: number;
  /** Names of those that are there already with other facts, and stay as they are. */
  readonly kept: readonly string[];
}
