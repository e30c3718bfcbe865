import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import type { KindsElsewhere, KindsTaken } from '@ipsonomo/core/api';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
import { acts, chooseFile, download, pathOf, reading, useAct } from '../../data';
import { Card, Notice, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

/** R-KINDS-SHARED: kinds that other jobs have, kinds out of a file, and these here as a file. */
export function SharedKinds({ id, hasOwn }: { readonly id: string; readonly hasOwn: boolean }) {
  const { data: elsewhere = [] } = useQuery(reading(acts.readKindsElsewhere, { job: id }));
  const take = useAct(acts.takeKinds, { job: id });
  const read = useAct(acts.takeKindsFromFile, { job: id });
  const choose = async () => {
    const file = await chooseFile('.json');
    if (file) read.mutate(file);
  };
  return (
    <View style={{ gap: 12 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title={KINDS_WORDS.kindsFromAFile}
          loading={read.isPending}
          onPress={() => void choose()}
        />
        {hasOwn ? (
          <Button
            type="outline"
            title={KINDS_WORDS.theseKindsAsAFile}
            onPress={() => download(pathOf(acts.fetchKinds, { job: id }))}
          />
        ) : null}
      </View>
      <Refusals issues={issuesOf(read.error ?? take.error)} />
      <Taken taken={take.data ?? read.data} />
      {elsewhere.map((one) => (
        <OfJob
          key={one.job}
          of={one}
          isBusy={take.isPending}
          onTake={(kinds) => take.mutate({ from: one.job, kinds })}
        />
      ))}
    </View>
  );
}

function Taken({ taken }: { readonly taken: KindsTaken | undefined }) {
  if (!taken) return null;
  const { kept } = taken;
  return (
    <Notice
      tone={kept.length > 0 ? 'ochre' : 'moss'}
      title={KINDS_WORDS.kindsTaken({ taken: taken.taken })}
    >
      {kept.length > 0 ? KINDS_WORDS.hereAlreadyOtherwise({ kept: kept.join(', ') }) : null}
    </Notice>
  );
}

interface OfJobProps {
  readonly of: KindsElsewhere;
  readonly isBusy: boolean;
  readonly onTake: (kinds: readonly string[]) => void;
}

function OfJob({ of, isBusy, onTake }: OfJobProps) {
  const others = of.kinds.filter(({ state }) => state === 'other');
  const offered = of.kinds.filter(({ state }) => state === 'new');
  return (
    <Card>
      <Words size="strong" heading={2}>
        {KINDS_WORDS.inTheJob({ name: of.name })}
      </Words>
      {offered.map((kind) => (
        <View key={kind.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View style={{ flex: 1 }}>
            <Words>{`${kind.maker}: ${kind.name}`}</Words>
            <Words size="caption" tone="second">
              {[kind.orderNumber, kind.revision].filter(Boolean).join(' · ')}
            </Words>
          </View>
          <Button
            type="clear"
            title={KINDS_WORDS.takeIt}
            accessibilityLabel={`${KINDS_WORDS.takeIt}: ${kind.name}`}
            disabled={isBusy}
            onPress={() => onTake([kind.id])}
          />
        </View>
      ))}
      {offered.length > 1 ? (
        <Button
          type="outline"
          title={KINDS_WORDS.takeAllKinds({ count: offered.length })}
          disabled={isBusy}
          onPress={() => onTake(offered.map((kind) => kind.id))}
        />
      ) : null}
      {others.length > 0 ? (
        <Words size="second" tone="second">
          {KINDS_WORDS.hereAlreadyOtherwise({ kept: others.map(({ name }) => name).join(', ') })}
        </Words>
      ) : null}
    </Card>
  );
}
