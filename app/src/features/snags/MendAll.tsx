import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { mendWords, snagSentence } from '@ipsonomo/language';
import type { PlanDoc } from '@ipsonomo/core/plan';
import { mendAll, type MendedAll, type Snag } from '@ipsonomo/core/snags';
import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';
import { useEdit } from '../../data';
import { Card, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly job: string;
  readonly doc: PlanDoc;
  readonly cause: string;
  readonly snags: readonly Snag[];
}

const MOST_SHOWN = 30;

/** Mends every snag of one cause that has a mend: all of it is seen first, and is one revision. */
export function MendAll({ job, doc, cause, snags }: Props) {
  const edit = useEdit(job);
  const [shown, setShown] = useState<MendedAll>();
  const done = () => setShown(undefined);
  if (!shown)
    return (
      <Button
        type="clear"
        title={SNAGS_WORDS.mendAllOfThese}
        onPress={() => setShown(mendAll(doc, snags, Date.now()))}
      />
    );
  const { mends, edits } = shown;
  const why = SNAGS_WORDS.mendedSnag({ mends: mends.length, toLowerCase: cause.toLowerCase() });
  return (
    <Card strong>
      <Words size="strong">
        {mends.length === 0
          ? SNAGS_WORDS.noneOfTheseCanBeMended
          : SNAGS_WORDS.snagWouldBeMended({ mends: mends.length })}
      </Words>
      {mends.slice(0, MOST_SHOWN).map(([snag, mend], at) => (
        <View key={at}>
          <Words size="caption" tone="second">
            {snagSentence(snag)}
          </Words>
          <Words size="second">{mendWords(mend)}</Words>
        </View>
      ))}
      {mends.length > MOST_SHOWN ? (
        <Words size="caption" tone="second">
          {SNAGS_WORDS.andMore({ mends: mends.length - MOST_SHOWN })}
        </Words>
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
      {mends.length > 0 ? (
        <Button
          title={SNAGS_WORDS.mendSnag({ mends: mends.length })}
          loading={edit.isPending}
          onPress={() => edit.mutate({ edits, why }, { onSuccess: done })}
        />
      ) : null}
      <Button type="outline" title={SNAGS_WORDS.leaveThem} onPress={done} />
    </Card>
  );
}
