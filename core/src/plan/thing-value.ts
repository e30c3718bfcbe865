import type { Issue } from '../net';
import type { ThingDoc } from './thing-map';
import { shapeOf, type Thing, type ThingType } from './things';

// What a document says, read once and kept beside it for as long as the document is there.

const valueOnce = new WeakMap<ThingDoc, unknown>();

/** Keeps what a document was written from: whoever asks for it later need not read it. */
export function keepValue(doc: ThingDoc, value: unknown): void {
  valueOnce.set(doc, value);
}

/** The thing that a document says. */
export function valueOf<T extends ThingType>(type: T, doc: ThingDoc): Thing<T> {
  const known = valueOnce.get(doc);
  if (known !== undefined) return known as Thing<T>;
  const issues: Issue[] = [];
  const value = shapeOf(type).read(doc, type, issues);
  // Documents are checked where they come in; one that cannot be read here is a programmer's error.
  if (value === undefined) throw new Error(`unreadable ${type}: ${JSON.stringify(issues)}`);
  keepValue(doc, value);
  return value as Thing<T>;
}
