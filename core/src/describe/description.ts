import type { Kind } from '../plan';

/** A place of a description file that could not be read, or only in part. */
export interface Unread {
  /** Counted from 1. */
  readonly line: number;
  readonly text: string;
  readonly why: string;
}

/** What a description file says of one kind or several, and what of it could not be read. */
export interface Description {
  readonly kinds: readonly Kind[];
  readonly unread: readonly Unread[];
}

/** Why a text describes no device. */
export type NoDescription = 'no-device' | 'no-identity';

/** A file with more broken places than this is broken as a whole; the first are told. */
export const MOST_UNREAD = 200;

/** What a kind from a file still needs from a person. */
export const TO_CONFIRM =
  'Read from a description file; ways and factory state are to be confirmed.';
