import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import type { RevisionView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { REVISIONS_WORDS } from '@ipsonomo/language/screens/revisions';
import { acts, reading, useAct, useActOn, useJob } from '../../../data';
import { Beside, Field, LongList, Page, Refusals, Row, useKept, Words } from '../../../parts';
import { useColours, useWide } from '../../../theme';
import { issuesOf } from '../../words';
import { Compare } from './Compare';

/** Every change of the plan: who, when, why; taken back, named, and held side by side. */
export function RevisionsScreen({ job: id }: { readonly job: string }) {
  const { job } = useJob(id);
  const { data: revisions, error } = useQuery(reading(acts.listRevisions, { job: id }));
  const undo = useAct(acts.undo, { job: id });
  const redo = useAct(acts.redo, { job: id });
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const toggle = (number: number) =>
    setChosen((now) =>
      now.includes(number) ? now.filter((one) => one !== number) : [...now.slice(-1), number],
    );
  const wide = useWide();
  // Where there is room, what the last one changed stands beside the list until others are chosen.
  const [, before] = revisions ?? [];
  const compared = wide && chosen.length === 0 && before ? [before.number] : chosen;
  const comparing =
    job && compared.length > 0 ? <Compare id={id} job={job} chosen={compared} /> : null;
  const list = (
    <Page>
      <Words size="title" heading={1}>
        {PLAN_WORDS.revisions}
      </Words>
      <Words tone="second">{REVISIONS_WORDS.chooseOneToSeeWhatCame}</Words>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Button
            type="outline"
            title={REVISIONS_WORDS.undoMyLast}
            loading={undo.isPending}
            onPress={() => undo.mutate()}
          />
        </View>
        <View style={{ flex: 1 }}>
          <Button
            type="outline"
            title={COMMON_WORDS.redo}
            loading={redo.isPending}
            onPress={() => redo.mutate()}
          />
        </View>
      </View>
      <Refusals issues={issuesOf(error ?? undo.error ?? redo.error)} />
      {wide ? null : comparing}
      <View>
        <LongList
          items={revisions ?? []}
          height={72}
          keyOf={({ number }) => String(number)}
          render={(one) => (
            <Revision
              {...{ id, one }}
              isChosen={chosen.includes(one.number)}
              onPress={() => toggle(one.number)}
            />
          )}
        />
      </View>
    </Page>
  );
  if (!wide || !comparing) return list;
  return (
    <Beside main="list" list={list}>
      <Page>{comparing}</Page>
    </Beside>
  );
}

interface RevisionProps {
  readonly id: string;
  readonly one: RevisionView;
  readonly isChosen: boolean;
  readonly onPress: () => void;
}

function Revision({ id, one, isChosen, onPress }: RevisionProps) {
  return (
    <View>
      <Row
        onPress={onPress}
        selected={isChosen}
        label={REVISIONS_WORDS.revision({ number: one.number })}
      >
        <View style={{ gap: 2 }}>
          <Words size="second">
            <Words size="strong">{`${one.number}`}</Words> · {one.what}
          </Words>
          {one.name ? (
            <Words size="strong" tone="moss">
              {one.name}
            </Words>
          ) : null}
          <Words size="caption" tone="second">
            {one.person} · {format(one.at, 'd MMM yyyy HH:mm')} ·{' '}
            {one.undoes === null
              ? REVISIONS_WORDS.change({ count: one.count })
              : REVISIONS_WORDS.takesBack({ undoes: one.undoes })}
          </Words>
        </View>
      </Row>
      {isChosen ? <Naming id={id} one={one} /> : null}
    </View>
  );
}

function Naming({ id, one }: Pick<RevisionProps, 'id' | 'one'>) {
  const colours = useColours();
  const [name, setName, forget] = useKept(`name of ${id} ${one.number}`, one.name ?? '');
  const naming = useActOn(acts.nameRevision);
  return (
    <View style={{ padding: 12, gap: 4, backgroundColor: colours.surface }}>
      <Field
        label={REVISIONS_WORDS.nameOfRevision({ number: one.number })}
        value={name}
        onChange={setName}
        placeholder={REVISIONS_WORDS.asIssuedToSite}
      />
      <Refusals issues={issuesOf(naming.error)} />
      <Button
        type="outline"
        title={REVISIONS_WORDS.nameIt}
        disabled={name.trim() === '' || name === one.name}
        loading={naming.isPending}
        onPress={() =>
          naming.mutate(
            { params: { job: id, number: String(one.number) }, body: { name: name.trim() } },
            { onSuccess: forget },
          )
        }
      />
    </View>
  );
}
