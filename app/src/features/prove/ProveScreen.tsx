import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Plan, PlanDoc } from '@ipsonomo/core/plan';
import { interfacesIn } from '@ipsonomo/core/proof';
import { acts, type Job, reading, useAct, useJob, useTimeThereOf } from '../../data';
import { Page, Pick, Refusals, Words, type PickOption } from '../../parts';
import { issuesOf, plural } from '../words';
import { findingsOf, ofKind, staleTimesOf, type Finding } from './findings';
import { Accepted, Contradicted, Plain } from './Groups';
import { RunCard, useRun } from './RunCard';
import { placesOf, scopeOf, WHOLE } from './scopes';
import { Strangers } from './Strangers';
import { Temporary } from './Temporary';

/** Expected against found: runs over the job or a part of it, and what each device comes to. */
export function ProveScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const begin = useAct(acts.beginProof, { job: id });
  const run = useRun(id);
  const [place, setPlace] = useState(WHOLE);
  const [perSecond, setPace] = useState(1000);
  const scope = scopeOf(place);
  const plan = job?.plan;
  const count = useMemo(
    () => (plan ? interfacesIn(plan, scopeOf(place)).length : 0),
    [plan, place],
  );
  const findings = useFindings(job);
  const proven = ofKind(findings, 'proven').length;
  return (
    <Page
      maxWidth={1100}
      action={
        <>
          <Refusals issues={issuesOf(begin.error)} />
          <Button
            size="lg"
            title={run ? `Asking, ${run.left} to go` : `Prove ${plural(count, 'device')}`}
            disabled={count === 0 || run !== undefined}
            loading={begin.isPending}
            onPress={() => begin.mutate({ scope, perSecond })}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {job ? `${proven} of ${plural(findings.length, 'device')} proven` : 'Prove'}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {job ? (
        <>
          <RunCard {...{ job: id, perSecond }} />
          <Wish {...{ plan: job.plan, place, setPlace, perSecond, setPace }} />
          <More job={id} />
          <Temporary job={id} view={job.view} />
          <Results {...{ job: id, plan: job.plan, doc: job.now.doc, findings }} />
        </>
      ) : null}
    </Page>
  );
}

/** What each comes to; looked at again when something was seen, or has become too old. */
function useFindings(job: Job | undefined): readonly Finding[] {
  const times = useMemo(() => (job ? staleTimesOf(job.plan, job.view) : []), [job]);
  const now = useTimeThereOf(times);
  return useMemo(() => (job ? findingsOf(job.plan, job.view, now) : []), [job, now]);
}

const PACES: readonly PickOption<number>[] = [
  { value: 1000, title: '1000 packets/s' },
  { value: 200, title: '200 packets/s', detail: 'for old switches and a running plant' },
  { value: 50, title: '50 packets/s', detail: 'as careful as it gets' },
];

interface WishProps {
  readonly plan: Plan;
  readonly place: string;
  readonly setPlace: (place: string) => void;
  readonly perSecond: number;
  readonly setPace: (perSecond: number) => void;
}

/** What the next run is over, and how fast. */
function Wish({ plan, place, setPlace, perSecond, setPace }: WishProps) {
  const places = useMemo(() => placesOf(plan), [plan]);
  return (
    <View style={{ flexDirection: 'row', gap: 12 }}>
      <View style={{ flex: 1 }}>
        <Pick label="Prove" options={places} value={place} onChange={setPlace} />
      </View>
      <View style={{ flex: 1 }}>
        <Pick label="Pace" options={PACES} value={perSecond} onChange={setPace} />
      </View>
    </View>
  );
}

const PLACES = [
  ['routes', 'Routes', 'Routes there and back'],
  ['controller', 'Controller', 'As the controller has it'],
  ['drill', 'Cold start', 'Cold start'],
  ['vigil', 'Vigil', 'Vigil'],
  ['picture', 'Picture', 'The site as it is connected'],
  ['runs', 'Runs', 'Kept runs'],
  ['codes', 'Codes', 'What does a code mean?'],
] as const;

function More({ job }: { readonly job: string }) {
  const router = useRouter();
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {PLACES.map(([path, title, label]) => (
        <Button
          key={path}
          type="outline"
          title={title}
          accessibilityLabel={label}
          buttonStyle={{ paddingHorizontal: 11 }}
          onPress={() => router.navigate(`/job/${job}/${path}`)}
        />
      ))}
    </View>
  );
}

interface ResultsProps {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly findings: ReturnType<typeof findingsOf>;
}

function Results({ job, plan, doc, findings }: ResultsProps) {
  const last = useQuery(reading(acts.listProofs, { job })).data?.find(({ how }) => how === 'done');
  const detail = useQuery({
    ...reading(acts.readProof, { job, proof: last?.id ?? '' }),
    enabled: last !== undefined,
  });
  const of = (...kinds: Parameters<typeof ofKind>[1][]) => ofKind(findings, ...kinds);
  const parts = { job, plan };
  return (
    <>
      <Contradicted {...{ ...parts, doc }} title="Otherwise" findings={of('contradicted')} />
      <Plain {...parts} title="Nothing answers" findings={of('silent')} causes />
      <Strangers plan={plan} strangers={detail.data?.strangers ?? []} />
      <Plain {...parts} title="Proven too long ago" findings={of('stale')} />
      <Plain {...parts} title="Not asked" findings={of('not-asked')} />
      <Accepted {...{ ...parts, doc }} findings={of('accepted')} />
      <Plain {...parts} title="Proven" findings={of('proven')} />
    </>
  );
}
