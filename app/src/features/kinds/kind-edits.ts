import type { StoredPaper } from '@ipsonomo/core/api';
import {
  changeOf,
  docOf,
  findDoc,
  type Edit,
  type Kind,
  type Paper,
  type PlanDoc,
} from '@ipsonomo/core/plan';

/** What a person has said of a kind before (its ways, its steps) stays as it was said. */
const KEPT = ['ways', 'factory', 'switches', 'wins', 'pinning', 'role', 'stem'] as const;

/** Puts a kind that was read into the plan, with its papers, or changes what the plan has of it. */
export function editsOfRead(doc: PlanDoc, kind: Kind): readonly Edit[] {
  const thing = docOf('kind', kind);
  const before = findDoc(doc, 'kind', kind.id);
  if (!before) return [{ op: 'add', type: 'kind', thing }];
  const kept = Object.fromEntries(KEPT.map((field) => [field, before[field] ?? null]));
  return changeOf('kind', before, { ...thing, ...kept });
}

/** A kind with these papers; one of the shelf becomes the plan's own by it. */
export function editsOfPapers(doc: PlanDoc, kind: Kind, papers: readonly Paper[]): readonly Edit[] {
  const before = findDoc(doc, 'kind', kind.id);
  const thing = docOf('kind', { ...kind, papers });
  return before
    ? changeOf('kind', before, { ...before, papers: thing['papers'] ?? [] })
    : [{ op: 'add', type: 'kind', thing }];
}

/** The papers with one more; the same one twice is one. */
export function withPaper(
  papers: readonly Paper[],
  { id, bytes }: StoredPaper,
  name: string,
  what: Paper['what'],
): readonly Paper[] {
  return [
    ...papers.filter((one) => one.id !== id),
    { ...{ id, bytes, what }, name: name.slice(0, 200) },
  ];
}

/** What a paper most likely is, by the name of its file. */
export function paperKindOf(name: string): Paper['what'] {
  const ending = name.toLowerCase().split('.').at(-1) ?? '';
  if (['eds', 'xml', 'gsdml'].includes(ending)) return 'description';
  if (ending === 'pdf') return 'manual';
  if (['png', 'jpg', 'jpeg', 'svg', 'dxf', 'dwg'].includes(ending)) return 'drawing';
  return 'other';
}
