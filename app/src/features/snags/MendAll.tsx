import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { mendWords, snagSentence } from '@ipsonomo/language';
import type { PlanDoc } from '@ipsonomo/core/plan';
import { mendAll, type MendedAll, type Snag } from '@ipsonomo/core/snags';
import { useEdit } from '../../data';
import { Card, Refusals, Words } from '../../parts';
import { issuesOf, plural } from '../words';

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
        title="Mend all of these …"
        onPress={() => setShown(mendAll(doc, snags, Date.now()))}
      />
    );
  const { mends, edits } = shown;
  const why = `mended ${plural(mends.length, 'snag')}: ${cause.toLowerCase()}`;
  return (
    <Card strong>
      <Words size="strong">
        {mends.length === 0
          ? 'None of these can be mended without you.'
          : `${plural(mends.length, 'snag')} would be mended`}
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
          and {mends.length - MOST_SHOWN} more
        </Words>
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
      {mends.length > 0 ? (
        <Button
          title={`Mend ${plural(mends.length, 'snag')}`}
          loading={edit.isPending}
          onPress={() => edit.mutate({ edits, why }, { onSuccess: done })}
        />
      ) : null}
      <Button type="outline" title="Leave them" onPress={done} />
    </Card>
  );
}
