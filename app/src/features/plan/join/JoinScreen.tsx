import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { BundleTaken, ClashView, JoinedView } from '@ipsonomo/core/api';
import type { PlanDoc, Side } from '@ipsonomo/core/plan';
import { fieldWords, valueWords } from '@ipsonomo/language';
import { JOIN_WORDS } from '@ipsonomo/language/screens/join';
import {
  acts,
  chooseFile,
  download,
  hasRight,
  pathOf,
  reading,
  useAct,
  useEdit,
  useJob,
  useMe,
} from '../../../data';
import { Card, Notice, Page, Refusals, timeOf, TwoColumns, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { otherSide } from './other-side';

/** R-UNITE: what goes to another laptop on a stick, and what comes from it. */
export function JoinScreen({ job }: { readonly job: string }) {
  const { data: joined } = useQuery(reading(acts.readJoined, { job }));
  const doc = useJob(job).job?.now.doc;
  return (
    <Page maxWidth={1100}>
      <Words size="title" heading={1}>
        {JOIN_WORDS.title}
      </Words>
      <Words tone="second">{JOIN_WORDS.what}</Words>
      {joined && doc && joined.clashes.length > 0 ? (
        <Clashes job={job} clashes={joined.clashes} doc={doc} />
      ) : null}
      <TwoColumns second={<TakeIn job={job} />}>
        <Card>
          <Words size="second">{JOIN_WORDS.writeMore}</Words>
          <Button
            type="outline"
            title={JOIN_WORDS.write}
            onPress={() => download(pathOf(acts.fetchBundle, { job }))}
          />
        </Card>
      </TwoColumns>
      {joined && joined.taken.length > 0 ? <WhatCame taken={joined.taken} /> : null}
    </Page>
  );
}

function TakeIn({ job }: { readonly job: string }) {
  const me = useMe();
  const take = useAct(acts.takeBundle, { job });
  if (me && !hasRight(me.role, 'keep')) return <Words>{JOIN_WORDS.onlyKeepers}</Words>;
  const choose = async () => {
    const file = await chooseFile('.gz,application/gzip');
    if (file) take.mutate(file);
  };
  return (
    <Card>
      <Button
        type="outline"
        title={JOIN_WORDS.takeIn}
        loading={take.isPending}
        onPress={() => void choose()}
      />
      <Refusals issues={issuesOf(take.error)} />
      {take.data ? (
        <View role="status">
          <Words size="second">{takenWords(take.data)}</Words>
        </View>
      ) : null}
    </Card>
  );
}

const takenWords = ({
  from,
  revisions,
  evidence,
}: Pick<BundleTaken, 'from' | 'revisions' | 'evidence'>): string =>
  revisions + evidence === 0
    ? JOIN_WORDS.nothingNew({ from })
    : JOIN_WORDS.taken({ from, revisions, evidence });

interface ClashesProps {
  readonly job: string;
  readonly clashes: readonly ClashView[];
  readonly doc: PlanDoc;
}

function Clashes({ job, clashes, doc }: ClashesProps) {
  return (
    <Notice tone="ochre" title={JOIN_WORDS.bothChanged({ count: clashes.length })}>
      <View style={{ gap: 16 }}>
        {clashes.map((one) => (
          <Clash key={`${one.type} ${one.id} ${one.field ?? ''}`} job={job} clash={one} doc={doc} />
        ))}
      </View>
    </Notice>
  );
}

function Clash({ job, clash, doc }: Omit<ClashesProps, 'clashes'> & { readonly clash: ClashView }) {
  const router = useRouter();
  const settle = useAct(acts.settleClash, { job });
  const edit = useEdit(job);
  const { type, id, field, title, stands, lost } = clash;
  const other = otherSide(clash, doc);
  const sideWords = ({ value, person, at }: Side): string => {
    const is =
      field === null
        ? value === undefined
          ? JOIN_WORDS.gone
          : JOIN_WORDS.there
        : valueWords(field, value, doc);
    const by = person === '' ? JOIN_WORDS.before : JOIN_WORDS.by({ person, at: timeOf(at) });
    return `${is} (${by})`;
  };
  return (
    <View style={{ gap: 4 }}>
      <Words size="device">{field === null ? title : `${title}, ${fieldWords(field)}`}</Words>
      <Words size="second">{JOIN_WORDS.stands({ value: sideWords(stands) })}</Words>
      <Words size="second">{JOIN_WORDS.other({ value: sideWords(lost) })}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          type="outline"
          title={JOIN_WORDS.itStays}
          loading={settle.isPending}
          onPress={() =>
            settle.mutate({ type, id, field, stands: stands.revision, lost: lost.revision || null })
          }
        />
        {other ? (
          <Button
            type="outline"
            title={JOIN_WORDS.takeOther}
            loading={edit.isPending}
            onPress={() => edit.mutate({ edits: [other], why: JOIN_WORDS.decided({ title }) })}
          />
        ) : doc[type].has(id) ? (
          <Button
            type="outline"
            title={JOIN_WORDS.goThere({ name: title })}
            onPress={() => router.navigate(`/job/${job}/thing/${type}/${id}`)}
          />
        ) : null}
      </View>
      <Refusals issues={issuesOf(settle.error ?? edit.error)} />
    </View>
  );
}

function WhatCame({ taken }: Pick<JoinedView, 'taken'>) {
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {JOIN_WORDS.whatCame}
      </Words>
      {taken.map(({ serverName: from, at, person, revisions, evidence }) => (
        <View key={`${from} ${at}`}>
          <Words size="second">{takenWords({ from, revisions, evidence })}</Words>
          <Words size="second" tone="second">
            {JOIN_WORDS.came({ at: timeOf(at), person })}
          </Words>
        </View>
      ))}
    </View>
  );
}
