import type { Unread } from '../describe';
import type { ThingDoc } from '../plan';

/** What a description file says: kinds as they would stand in the plan. Nothing is changed yet. */
export interface DescriptionView {
  readonly kinds: readonly ThingDoc[];
  readonly unread: readonly Unread[];
}

/** A paper that was stored: its SHA-256 and how many bytes it has. */
export interface StoredPaper {
  readonly id: string;
  readonly bytes: number;
}
