import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Plan, PlanDoc } from '@ipsonomo/core/plan';
import { interfacesIn } from '@ipsonomo/core/proof';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { acts, type Job, reading, useAct, useJob, useTimeThereOf } from '../../data';
import { Page, Pick, Refusals, Words, type PickOption } from '../../parts';
import { useWide } from '../../theme';
import { NarrowField, useNarrowed } from '../narrow';
import { issuesOf } from '../words';
import { findingsOf, ofKind, staleTimesOf, type Finding } from './findings';
import { Accepted, Contradicted, Plain } from './Groups';
import { RunCard, useRun } from './RunCard';
import { placesOf, scopeOf, WHOLE } from './scopes';
import { Strangers } from './Strangers';
import { Temporary } from './Temporary';
import { ToolList } from './tools/ToolList';

/** Expected against found: runs over the job or a part of it, and what each device comes to. */
export function ProveScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const wide = useWide();
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
  const narrowed = useNarrowed(`narrow proofs ${id}`, plan, job?.view);
  const shown = useMemo(
    () => (narrowed.only ? findings.filter(({ at }) => narrowed.only?.has(at.id)) : findings),
    [findings, narrowed.only],
  );
  const proven = ofKind(findings, 'proven').length;
  return (
    <Page
      maxWidth={1280}
      action={
        <>
          <Refusals issues={issuesOf(begin.error)} />
          <Button
            size="lg"
            title={
              run ? PROVE_WORDS.askingToGo({ left: run.left }) : PROVE_WORDS.proveDevice({ count })
            }
            disabled={count === 0 || run !== undefined}
            loading={begin.isPending}
            onPress={() => begin.mutate({ scope, perSecond })}
          />
        </>
      }
    >
      <Words size="title" heading={1}>
        {job
          ? PROVE_WORDS.ofDeviceProven({ proven, findings: findings.length })
          : COMMON_WORDS.prove}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {job ? (
        <>
          <RunCard {...{ job: id, perSecond }} />
          <View style={wide ? { flexDirection: 'row', gap: 40 } : { gap: 16 }}>
            <View style={wide ? { flex: 1, gap: 16 } : { gap: 16 }}>
              <Wish {...{ plan: job.plan, place, setPlace, perSecond, setPace }} />
              {wide ? null : <Tools job={id} />}
              <Temporary job={id} view={job.view} />
              <NarrowField {...{ narrowed }} shown={shown.length} of={findings.length} />
              <Results {...{ job: id, plan: job.plan, doc: job.now.doc, findings: shown }} />
            </View>
            {wide ? <Tools job={id} /> : null}
          </View>
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
  { value: 1000, title: PROVE_WORDS.n1000PacketsS },
  { value: 200, title: PROVE_WORDS.n200PacketsS, detail: PROVE_WORDS.forOldSwitchesAndARunning },
  { value: 50, title: PROVE_WORDS.n50PacketsS, detail: PROVE_WORDS.asCarefulAsItGets },
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
        <Pick label={COMMON_WORDS.prove} options={places} value={place} onChange={setPlace} />
      </View>
      <View style={{ flex: 1 }}>
        <Pick label={PROVE_WORDS.pace} options={PACES} value={perSecond} onChange={setPace} />
      </View>
    </View>
  );
}

/** Beside the results where there is room for both, else a page of their own. */
function Tools({ job }: { readonly job: string }) {
  const router = useRouter();
  const wide = useWide();
  if (!wide)
    return (
      <Button
        type="outline"
        title={PROVE_WORDS.allTools}
        onPress={() => router.navigate(`/job/${job}/tools`)}
      />
    );
  return (
    <View style={{ width: 340 }}>
      <Words size="strong" heading={2}>
        {PROVE_WORDS.tools}
      </Words>
      <ToolList job={job} />
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
      <Contradicted
        {...{ ...parts, doc }}
        title={PROVE_WORDS.otherwise}
        findings={of('contradicted')}
      />
      <Plain {...parts} title={PROVE_WORDS.nothingAnswers} findings={of('silent')} causes />
      <Strangers plan={plan} strangers={detail.data?.strangers ?? []} />
      <Plain {...parts} title={PROVE_WORDS.provenTooLongAgo} findings={of('stale')} />
      <Plain {...parts} title={PROVE_WORDS.notAsked} findings={of('not-asked')} />
      <Accepted {...{ ...parts, doc }} findings={of('accepted')} />
      <Plain {...parts} title={COMMON_WORDS.proven} findings={of('proven')} />
    </>
  );
}
