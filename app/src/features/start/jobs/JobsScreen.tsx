import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { JobCounts, JobSummary } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { FIRST_WORDS } from '@ipsonomo/language/screens/first';
import { START_WORDS } from '@ipsonomo/language/screens/start';
import {
  acts,
  chooseFile,
  jobsQuery,
  useAct,
  useIsDemo,
  useSettings,
  wiresQuery,
} from '../../../data';
import { stateWords, wireWords } from '../../frame';
import { Card, Field, LongList, Page, Refusals, Row, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import { WaitingBar } from '../../waiting';
import { You } from '../door/You';

/** About as high as a job's line is. */
const JOB_LINE = 76;

/** The jobs of this server, and who is using it. */
export function JobsScreen() {
  const { data: all, error } = useQuery(jobsQuery);
  const router = useRouter();
  const jobs = all?.filter(({ archived }) => !archived);
  const archived = all?.filter((one) => one.archived) ?? [];
  const [first] = jobs ?? [];
  const settings = useSettings();
  const isEmpty = all?.length === 0;
  const isDemo = useIsDemo();
  return (
    <Page
      action={
        first ? (
          <Button
            size="lg"
            title={COMMON_WORDS.open({ name: first.name })}
            onPress={() => router.navigate(`/job/${first.id}/assign`)}
          />
        ) : isEmpty ? (
          <Button
            size="lg"
            title={settings.first ? FIRST_WORDS.goOnWith : FIRST_WORDS.firstSteps}
            onPress={() => router.navigate('/first')}
          />
        ) : undefined
      }
    >
      <Words size="title" heading={1}>
        {START_WORDS.jobs}
      </Words>
      <Refusals issues={issuesOf(error)} />
      <WaitingBar isInPage />
      {isDemo ? <Words tone="second">{START_WORDS.thisIsADemo}</Words> : null}
      <ListeningNow jobs={all ?? []} />
      <LongList
        items={jobs ?? []}
        keyOf={({ id }) => id}
        height={JOB_LINE}
        render={(job) => <JobRow job={job} />}
      />
      {jobs?.length === 0 ? <Words tone="second">{START_WORDS.noJobYetNameTheFirst}</Words> : null}
      <NewJob />
      {archived.length > 0 ? <Archived jobs={archived} /> : null}
      <You />
    </Page>
  );
}

const countsWords = ({ subnets, devices, left }: JobCounts): string =>
  START_WORDS.subnetDeviceSnag({ subnets, devices, plan: left.plan }) +
  START_WORDS.toAssignToProve({ assign: left.assign, prove: left.prove });

function JobRow({ job }: { readonly job: JobSummary }) {
  const router = useRouter();
  return (
    <Row onPress={() => router.navigate(`/job/${job.id}/plan`)} label={job.name}>
      <Words size="device">{job.name}</Words>
      <Words size="second" tone="second">
        {job.counts ? countsWords(job.counts) : START_WORDS.whatIsLeftIsBeingCounted}
      </Words>
    </Row>
  );
}

/** Jobs that nobody works on any more, once somebody asks for them. */
function Archived({ jobs }: { readonly jobs: readonly JobSummary[] }) {
  const [isShown, setShown] = useState(false);
  return (
    <View style={{ gap: 8 }}>
      <Button
        type="outline"
        title={
          isShown ? START_WORDS.hideArchived : START_WORDS.showArchived({ count: jobs.length })
        }
        onPress={() => setShown(!isShown)}
      />
      {isShown ? (
        <>
          <Words size="strong" heading={2}>
            {START_WORDS.archived}
          </Words>
          <LongList
            items={jobs}
            keyOf={({ id }) => id}
            height={JOB_LINE}
            render={(job) => <JobRow job={job} />}
          />
        </>
      ) : null}
    </View>
  );
}

/** Wires on which somebody listens, and one end to all that is sent. */
function ListeningNow({ jobs }: { readonly jobs: readonly JobSummary[] }) {
  const router = useRouter();
  const { data: wires = [] } = useQuery(wiresQuery);
  const silence = useAct(acts.silenceAll, {});
  const busy = wires.filter(({ runId }) => runId !== null);
  if (busy.length === 0) return null;
  const nameOf = (id: string) => jobs.find((job) => job.id === id)?.name ?? '';
  return (
    <Card>
      <Words size="strong" heading={2}>
        {START_WORDS.listeningNow}
      </Words>
      {busy.map((wire) => (
        <Row
          key={wire.jobId}
          onPress={() => router.navigate(`/job/${wire.jobId}/wire`)}
          label={START_WORDS.theWireOf({ jobId: nameOf(wire.jobId) })}
        >
          <Words size="device">{nameOf(wire.jobId)}</Words>
          <Words size="second" tone="second">
            {`${wireWords(wire)} · ${stateWords(wire, wire.now)}`}
          </Words>
        </Row>
      ))}
      <Button
        type="outline"
        title={START_WORDS.fallSilentOnEveryWire}
        loading={silence.isPending}
        onPress={() => silence.mutate()}
      />
      <Refusals issues={issuesOf(silence.error)} />
    </Card>
  );
}

function NewJob() {
  const [name, setName, forget] = useDraft('new job');
  const add = useAct(acts.addJob, {});
  const fromFile = useAct(acts.addJobFromFile, {});
  const fromLaptop = useAct(acts.takeNewBundle, {});
  const router = useRouter();
  const open = ({ id }: { readonly id: string }) => router.navigate(`/job/${id}/plan`);
  const create = () => add.mutate({ name }, { onSuccess: (made) => (forget(), open(made)) });
  const choose = async () => {
    const file = await chooseFile('.json,application/json');
    if (file) fromFile.mutate(file, { onSuccess: open });
  };
  const takeIn = async () => {
    const file = await chooseFile('.gz,application/gzip');
    if (file)
      fromLaptop.mutate(file, {
        onSuccess: ({ jobId }) => router.navigate(`/job/${jobId}/join`),
      });
  };
  return (
    <Card>
      <Field label={START_WORDS.aNewJobTheSiteOr} value={name} onChange={setName} />
      <Button
        type="outline"
        title={START_WORDS.beginThisJob}
        disabled={!name.trim()}
        onPress={create}
      />
      <Button
        type="clear"
        title={START_WORDS.beginWithAPlanFile}
        loading={fromFile.isPending}
        onPress={() => void choose()}
      />
      <Button
        type="clear"
        title={START_WORDS.takeInAnotherLaptops}
        loading={fromLaptop.isPending}
        onPress={() => void takeIn()}
      />
      <Refusals issues={issuesOf(add.error ?? fromFile.error ?? fromLaptop.error)} />
    </Card>
  );
}
