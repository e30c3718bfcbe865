import { kindShape, type Issue, type Kind, type ThingDoc } from '@ipsonomo/core';

/** A kind that came over the wire as text; none where it is not whole. */
export function kindOfDoc(doc: ThingDoc): readonly Kind[] {
  const issues: Issue[] = [];
  const kind = kindShape.read(doc, 'kind', issues);
  return kind ? [kind] : [];
}
