import type { Issue } from '../net';
import { docOf, findKind, OTHER_DEVICE, type Edit, type Kind, type Plan } from '../plan';
import { findKindByWords, type ColumnId } from './columns';

/** What a list's words for a kind are taken for: a kind, or one that is to be made. */
export interface KindWords {
  readonly words: string;
  /** Null: a kind is made of what the line says. */
  readonly kindId: string | null;
}

/** Words for a kind that is neither in the plan nor on the shelf. */
export interface UnknownKind {
  readonly words: string;
  /** As the first line of it says; may be empty. */
  readonly maker: string;
  readonly lines: number;
}

/** What a line says of its kind. */
type Said = Readonly<Partial<Record<'kind' | 'maker' | 'orderNumber', string>>>;

type FoundKind =
  | { readonly kind: 'found'; readonly found: Kind }
  | { readonly kind: 'nothing' }
  | { readonly kind: 'refused'; readonly column: ColumnId; readonly issue: Issue };

const small = (text: string): string => text.trim().toLowerCase();

/** The kinds that the lines of a list name, and those that are made for them. */
export class KindsOfList {
  private readonly chosen: ReadonlyMap<string, string | null>;
  private readonly made = new Map<string, Kind>();
  private readonly missing = new Map<string, UnknownKind>();

  constructor(
    private readonly plan: Plan,
    chosen: readonly KindWords[],
    private readonly newId: () => string,
  ) {
    this.chosen = new Map(chosen.map(({ words, kindId }) => [small(words), kindId]));
  }

  find(line: Said): FoundKind {
    const { kind: name = '', maker = '', orderNumber = '' } = line;
    const words = name.trim() || orderNumber.trim();
    if (words === '') return { kind: 'nothing' };
    const chosen = this.chosen.get(small(words));
    if (typeof chosen === 'string') {
      const found = findKind(this.plan, chosen);
      if (found) return { kind: 'found', found };
    }
    if (chosen === null) return { kind: 'found', found: this.make(line, words) };
    const found =
      findKindByWords(this.plan, `${maker.trim()} ${name.trim()}`) ??
      findKindByWords(this.plan, words) ??
      (orderNumber.trim() === '' ? undefined : findKindByWords(this.plan, orderNumber));
    if (found) return held(found, line);
    const before = this.missing.get(small(words));
    const lines = (before?.lines ?? 0) + 1;
    this.missing.set(small(words), {
      ...{ words: before?.words ?? words, maker: before?.maker || maker.trim(), lines },
    });
    const column = name.trim() === '' ? 'orderNumber' : 'kind';
    return { kind: 'refused', column, issue: { code: 'cell.kind', where: words } };
  }

  unknown(): readonly UnknownKind[] {
    return [...this.missing.values()];
  }

  /** What brings the made kinds into the plan that are wanted. */
  madeFor(wanted: ReadonlySet<string>): readonly Edit[] {
    return [...this.made.values()].flatMap((kind): readonly Edit[] =>
      wanted.has(kind.id) ? [{ op: 'add', type: 'kind', thing: docOf('kind', kind) }] : [],
    );
  }

  private make({ maker = '', orderNumber = '' }: Said, words: string): Kind {
    const known = this.made.get(small(words));
    if (known) return known;
    const kind: Kind = {
      ...OTHER_DEVICE,
      ...{ id: this.newId(), name: words, maker: maker.trim() || OTHER_DEVICE.maker },
      orderNumber: orderNumber.trim(),
    };
    this.made.set(small(words), kind);
    return kind;
  }
}

/** A kind that was found by its name; what else the line says of it has to agree. */
function held(found: Kind, { maker = '', orderNumber = '' }: Said): FoundKind {
  const { name } = found;
  const [said, own] = [small(maker), small(found.maker)];
  if (said !== '' && !said.includes(own) && !own.includes(said))
    return {
      ...{ kind: 'refused', column: 'maker' },
      issue: { code: 'cell.maker', where: maker.trim(), facts: { kind: name, maker: found.maker } },
    };
  const number = orderNumber.trim();
  if (number !== '' && found.orderNumber !== '' && small(number) !== small(found.orderNumber))
    return {
      ...{ kind: 'refused', column: 'orderNumber' },
      issue: {
        ...{ code: 'cell.orderNumber', where: number },
        facts: { kind: name, orderNumber: found.orderNumber },
      },
    };
  return { kind: 'found', found };
}
