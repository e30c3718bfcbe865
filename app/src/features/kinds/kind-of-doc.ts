import type { Issue } from '@ipsonomo/core/net';
import { kindShape, type Kind, type ThingDoc } from '@ipsonomo/core/plan';

/** A kind that came over the wire as text; none where it is not whole. */
export function kindOfDoc(doc: ThingDoc): readonly Kind[] {
  const issues: Issue[] = [];
  const kind = kindShape.read(doc, 'kind', issues);
  return kind ? [kind] : [];
}
