import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import {
  AT_ONCE,
  interfacesInPart,
  readerOf,
  READERS,
  WHOLE_JOB,
  type FormatId,
  type HandOverScope,
  type PackageWish,
} from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { HAND_OVER_WORDS } from '@ipsonomo/language/screens/hand-over';
import { acts, reading, useAct, useJob, usePackage, type Job } from '../../data';
import { Beside, Notice, Page, Refusals, Toggle, Words } from '../../parts';
import { useWide } from '../../theme';
import { Temporary } from '../prove';
import { issuesOf } from '../words';
import { Captures } from './Captures';
import { ChoosePart } from './ChoosePart';
import { FileLooks } from './FileLooks';
import { LookAt } from './LookAt';
import { PackageCard } from './PackageCard';
import { ReaderCard } from './ReaderCard';

/** What leaves, by who reads it: each part looked at before it is taken, or all of it as one ZIP. */
export function HandOverScreen({ job: id }: { readonly job: string }) {
  const wide = useWide();
  const { job, error } = useJob(id);
  const { data: handed = [], error: unread } = useQuery(reading(acts.listHandOvers, { job: id }));
  const note = useAct(acts.noteHandOver, { job: id });
  const all = usePackage(id);
  const [scope, setScope] = useState<HandOverScope>(WHOLE_JOB);
  const [despite, setDespite] = useState(false);
  const [open, setOpen] = useState<FormatId>();
  const wrong = job?.view.left.plan ?? 0;
  const isBarred = wrong > 0 && !despite;
  const wish = (formats: readonly FormatId[]): PackageWish => ({ formats, scope, despite });
  const shown = open ?? (wide ? 'addresses-csv' : undefined);
  const took = (formats: readonly FormatId[]) => {
    for (const reader of READERS) {
      const own = formats.filter((format) => readsIt(reader, format));
      if (own.length > 0) note.mutate({ reader, formats: own });
    }
  };
  const look =
    shown && job ? (
      <LookAt
        key={`${shown} ${JSON.stringify(scope)} ${job.view.revision}`}
        {...{ id, format: shown, isBarred }}
        wish={wish([shown])}
        onTook={() => took([shown])}
      />
    ) : null;
  const list = (
    <Page
      action={
        <Button
          size="lg"
          title={HAND_OVER_WORDS.takeEverything}
          disabled={isBarred || all.isBusy}
          onPress={() => all.begin(wish(AT_ONCE))}
        />
      }
    >
      <Words size="title" heading={1}>
        {COMMON_WORDS.handOver}
      </Words>
      {job ? <State job={job} scope={scope} /> : null}
      <Refusals issues={issuesOf(error ?? unread ?? note.error)} />
      {wrong > 0 ? <Wrong {...{ id, wrong, despite }} onDespite={setDespite} /> : null}
      {job ? <Temporary job={id} view={job.view} /> : null}
      <PackageCard made={all} onTook={() => took(AT_ONCE)} />
      {job ? <ChoosePart plan={job.plan} scope={scope} onChoose={setScope} /> : null}
      {READERS.map((reader) => (
        <ReaderCard
          key={reader}
          {...{ id, job, reader, isBarred, wish }}
          last={handed.find((one) => one.reader === reader)}
          open={shown}
          onOpen={(format) => setOpen(format === open && !wide ? undefined : format)}
          onTook={took}
        >
          {wide ? null : look}
        </ReaderCard>
      ))}
      <Captures
        job={id}
        hasPapers={job?.plan.kinds.some(({ papers }) => papers.length > 0) ?? false}
      />
      {job ? <FileLooks id={id} doc={job.doc} /> : null}
    </Page>
  );
  if (!wide) return list;
  return (
    <Beside main="list" list={list}>
      <Page>{look}</Page>
    </Beside>
  );
}

const readsIt = (reader: (typeof READERS)[number], format: FormatId): boolean =>
  readerOf(format) === reader;

function State({ job, scope }: { readonly job: Job; readonly scope: HandOverScope }) {
  const { handOver } = job.view.left;
  const chosen = new Set(interfacesInPart(job.plan, scope).map(({ at }) => at.id));
  const all = job.view.devices.flatMap(({ interfaces }) =>
    interfaces.filter((at) => chosen.has(at.id)),
  );
  const left = all.filter(({ stage }) => stage !== 'proven').length;
  return (
    <View style={{ gap: 2 }}>
      <Words tone="second">
        {handOver > 0
          ? HAND_OVER_WORDS.changeSinceTheListsWereLast({ handOver })
          : HAND_OVER_WORDS.nothingChangedSinceTheListsWere}
      </Words>
      {left > 0 ? (
        <Words tone="ochre">! {HAND_OVER_WORDS.notProven({ left, all: all.length })}</Words>
      ) : null}
    </View>
  );
}

interface WrongProps {
  readonly id: string;
  readonly wrong: number;
  readonly despite: boolean;
  readonly onDespite: (despite: boolean) => void;
}

/** A plan with something wrong leaves only by a person's word. */
function Wrong({ id, wrong, despite, onDespite }: WrongProps) {
  const router = useRouter();
  return (
    <Notice tone="brick" title={HAND_OVER_WORDS.thingsAreWrong({ wrong })}>
      <Words size="second">{HAND_OVER_WORDS.itLeavesOnlyIfYouSaySo}</Words>
      <Button
        type="outline"
        title={HAND_OVER_WORDS.seeWhatIsWrong}
        onPress={() => router.navigate(`/job/${id}/snags`)}
      />
      <Toggle
        title={HAND_OVER_WORDS.itLeavesAllTheSame}
        isOn={despite}
        onPress={() => onDespite(!despite)}
      />
    </Notice>
  );
}
