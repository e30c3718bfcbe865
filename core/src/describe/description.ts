import type { Kind } from '../plan';

/** A place of a description file that could not be read, or only in part. */
export interface Unread {
  /** Counted from 1. */
  readonly line: number;
  readonly text: string;
  readonly why: UnreadWhy;
}

/** What is wrong with it, and what then holds. */
export type UnreadWhy =
  | { readonly code: PlainWhy }
  /** `most` is the largest that it may be, or how often one may name another. */
  | { readonly code: 'no-number' | 'no-slot' | 'too-far'; readonly most: number }
  /** @property detail the XML reader's own words */
  | { readonly code: 'broken-xml'; readonly detail: string };

type PlainWhy =
  | 'no-entry'
  | 'no-end'
  | 'no-section'
  /** The first counts. */
  | 'twice'
  /** What is new in the second is added. */
  | 'section-twice'
  | 'names-nothing'
  | 'names-no-text'
  | 'no-id'
  | 'no-size'
  /** Nothing is fetched and no entity is put in. */
  | 'doctype';

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
