import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { JobSummary } from '@ipsonomo/core';
import {
  changeSettings,
  chooseFile,
  jobsQuery,
  useAddJob,
  useAddJobFromFile,
  useSettings,
  type Settings,
} from '../../data';
import { Card, Choice, Field, Page, Refusals, Row, Words } from '../../parts';
import { issuesOf, plural } from '../words';

/** The jobs of this server, and who is using it. */
export function JobsScreen() {
  const { data: jobs, error } = useQuery(jobsQuery);
  const router = useRouter();
  const [first] = jobs ?? [];
  return (
    <Page
      action={
        first ? (
          <Button
            size="lg"
            title={`Open ${first.name}`}
            onPress={() => router.navigate(`/job/${first.id}/assign`)}
          />
        ) : undefined
      }
    >
      <Words size="title" heading={1}>
        Jobs
      </Words>
      <Refusals issues={issuesOf(error)} />
      <View>
        {jobs?.map((job) => (
          <JobRow key={job.id} job={job} />
        ))}
      </View>
      {jobs?.length === 0 ? (
        <Words tone="second">No job yet. Name the first one below.</Words>
      ) : null}
      <NewJob />
      <You />
    </Page>
  );
}

function JobRow({ job }: { readonly job: JobSummary }) {
  const router = useRouter();
  const { plan, assign, prove } = job.left;
  return (
    <Row onPress={() => router.navigate(`/job/${job.id}/plan`)} label={job.name}>
      <Words size="device">{job.name}</Words>
      <Words size="second" tone="second">
        {plural(job.subnets, 'subnet')}, {plural(job.devices, 'device')} · {plural(plan, 'snag')},{' '}
        {assign} to assign, {prove} to prove
      </Words>
    </Row>
  );
}

function NewJob() {
  const [name, setName] = useState('');
  const add = useAddJob();
  const fromFile = useAddJobFromFile();
  const router = useRouter();
  const open = ({ id }: { readonly id: string }) => router.navigate(`/job/${id}/plan`);
  const create = () => add.mutate(name, { onSuccess: open });
  const choose = async () => {
    const file = await chooseFile('.json,application/json');
    if (file) fromFile.mutate(file, { onSuccess: open });
  };
  return (
    <Card>
      <Field label="A new job: the site or machine" value={name} onChange={setName} />
      <Button type="outline" title="Begin this job" disabled={!name.trim()} onPress={create} />
      <Button
        type="clear"
        title="Begin with a plan file …"
        loading={fromFile.isPending}
        onPress={() => void choose()}
      />
      <Refusals issues={issuesOf(add.error ?? fromFile.error)} />
    </Card>
  );
}

const MODES = [
  { value: 'auto', title: 'As this device has it' },
  { value: 'light', title: 'Day: readable in the sun' },
  { value: 'dark', title: 'Night: for a dark cabinet' },
] as const;

function You() {
  const settings = useSettings();
  const router = useRouter();
  return (
    <Card>
      <Field
        label="Your name, written beside everything you decide"
        value={settings.person}
        onChange={(person) => changeSettings({ person })}
      />
      <Choice<Settings['mode']>
        label="Light"
        options={MODES}
        value={settings.mode}
        onChange={(mode) => changeSettings({ mode })}
      />
      <Button type="outline" title="Let somebody in …" onPress={() => router.navigate('/let-in')} />
    </Card>
  );
}
