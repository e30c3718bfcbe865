import { useState } from 'react';
import { kindsOf, type Plan } from '@ipsonomo/core/plan';
import type { KindWords, UnknownKind } from '@ipsonomo/core/sheet';
import { IMPORT_WORDS } from '@ipsonomo/language/screens/import';
import { Card, Pick, Words } from '../../../parts';

interface Props {
  readonly plan: Plan;
  /** Words of the list that no kind is called by. */
  readonly unknown: readonly UnknownKind[];
  /** What was chosen for some of them. */
  readonly kinds: readonly KindWords[];
  readonly onChange: (kinds: readonly KindWords[]) => void;
}

const MOST_SHOWN = 40;

/** Kinds that nobody knows: each is made as the list says it, or is one that is known by another name. */
export function UnknownKinds({ plan, unknown, kinds, onChange }: Props) {
  const settled = kinds.map(({ words }) => ({ words, maker: '', lines: 0 }));
  const open = unknown.filter(({ words }) => !kinds.some((one) => one.words === words));
  const shown = useShown([...settled, ...open]);
  if (shown.length === 0) return null;
  const choose = (words: string, kindId: string | null | undefined) =>
    onChange([
      ...kinds.filter((one) => one.words !== words),
      ...(kindId === undefined ? [] : [{ words, kindId }]),
    ]);
  return (
    <Card>
      <Words size="strong" heading={2}>
        {IMPORT_WORDS.kindsNobodyKnows({ count: shown.length })}
      </Words>
      <Words size="second">{IMPORT_WORDS.kindsNobodyKnowsMore}</Words>
      {shown.slice(0, MOST_SHOWN).map(({ words, maker, lines }) => (
        <Pick
          key={words}
          label={lines > 0 ? IMPORT_WORDS.wordsInLines({ words, lines }) : words}
          options={[
            { value: undefined, title: IMPORT_WORDS.notSaidYet },
            {
              value: null,
              title: IMPORT_WORDS.makeThisKind({ words }),
              detail: maker,
            },
            ...kindsOf(plan).map((kind) => ({
              value: kind.id,
              ...{ title: kind.name, detail: kind.maker },
            })),
          ]}
          value={kinds.find((one) => one.words === words)?.kindId}
          onChange={(kindId) => choose(words, kindId)}
        />
      ))}
      {shown.length > MOST_SHOWN ? (
        <Words size="second" tone="second">
          {IMPORT_WORDS.andMoreKinds({ count: shown.length - MOST_SHOWN })}
        </Words>
      ) : null}
    </Card>
  );
}

/** As they were told at first: how many lines it is about is no longer told once it is settled. */
function useShown(now: readonly UnknownKind[]): readonly UnknownKind[] {
  const [told, setTold] = useState<ReadonlyMap<string, UnknownKind>>(new Map());
  const news = now.filter((one) => one.lines > 0 && told.get(one.words)?.lines !== one.lines);
  if (news.length > 0) setTold(new Map([...told, ...news.map((one) => [one.words, one] as const)]));
  return now
    .map((one) => (one.lines > 0 ? one : (told.get(one.words) ?? one)))
    .sort((a, b) => a.words.localeCompare(b.words));
}
