import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { acts, jobsQuery, useAct } from '../../../data';
import { Card, Choice, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

const HOW_MANY = [
  { value: '0', title: REHEARSAL_WORDS.none },
  { value: '2', title: REHEARSAL_WORDS.two, detail: REHEARSAL_WORDS.surprise },
  { value: '5', title: REHEARSAL_WORDS.five, detail: REHEARSAL_WORDS.surprise },
] as const;

/** Begins a rehearsal of the plan of a job. */
export function RehearseCard({ job }: { readonly job: string }) {
  const router = useRouter();
  const { data: jobs = [] } = useQuery(jobsQuery);
  const rehearse = useAct(acts.rehearse, { job });
  const [count, setCount] = useState<string>('0');
  const others = jobs.filter(({ rehearses }) => rehearses?.id === job).length;
  const begin = () =>
    rehearse.mutate(
      { wish: { kind: 'surprise', count: Number(count) } },
      { onSuccess: ({ id }) => router.navigate(`/job/${id}/rehearsal`) },
    );
  return (
    <Card>
      <Words size="strong" heading={2}>
        {REHEARSAL_WORDS.rehearseThisPlan}
      </Words>
      <Words size="second">{REHEARSAL_WORDS.rehearseWhy}</Words>
      <Choice
        label={REHEARSAL_WORDS.mistakesToFind}
        options={HOW_MANY}
        value={count}
        onChange={setCount}
      />
      <Button
        type="outline"
        title={REHEARSAL_WORDS.beginRehearsal}
        loading={rehearse.isPending}
        onPress={begin}
      />
      <Refusals issues={issuesOf(rehearse.error)} />
      {others > 0 ? (
        <Words size="second" tone="second">
          {REHEARSAL_WORDS.otherRehearsals({ count: others })}
        </Words>
      ) : null}
    </Card>
  );
}

/** Whether this job rehearses the plan of another. */
export function useIsRehearsal(job: string): boolean {
  const { data: jobs = [] } = useQuery(jobsQuery);
  return jobs.some(({ id, rehearses }) => id === job && rehearses !== null);
}
