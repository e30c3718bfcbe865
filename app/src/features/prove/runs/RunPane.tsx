import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import type { ProofDetailView } from '@ipsonomo/core/api';
import {
  evidenceWords,
  FOUND_WORDS,
  foundWords,
  proofEndWords,
  sourceWords,
} from '@ipsonomo/language';
import { findInterface, type Plan } from '@ipsonomo/core/plan';
import { runChanges, type ProofResult, type RunChange } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { RUNS_WORDS } from '@ipsonomo/language/screens/runs';
import { acts, reading, usePlan } from '../../../data';
import { Card, LongList, Page, Pick, Refusals, Row, timeOf, Words } from '../../../parts';
import { useWide } from '../../../theme';
import { Strangers } from '../Strangers';
import { issuesOf } from '../../words';
import { runCounts, runTime } from './RunList';

/** One run with all that it found, and what is different since another. */
export function RunPane({ job, id }: { readonly job: string; readonly id: string }) {
  const { plan } = usePlan(job);
  const { data: run, error } = useQuery(reading(acts.readProof, { job, proof: id }));
  const runs = useQuery(reading(acts.listProofs, { job })).data ?? [];
  const earlier = runs.filter((one) => one.startedAt < (run?.startedAt ?? 0));
  const [chosen, setChosen] = useState<string>();
  const since = chosen ?? earlier[0]?.id ?? '';
  const before = useQuery({
    ...reading(acts.readProof, { job, proof: since }),
    enabled: since !== '',
  }).data;
  return (
    <Page maxWidth={1100}>
      <Words size="title" heading={1}>
        {run ? RUNS_WORDS.runOf2({ startedAt: runTime(run.startedAt) }) : RUNS_WORDS.run}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {run && plan ? (
        <>
          <Head run={run} />
          {earlier.length > 0 ? (
            <Card>
              <Pick
                label={RUNS_WORDS.whatIsDifferentSince}
                options={earlier.map((one) => ({
                  ...{ value: one.id, title: runTime(one.startedAt) },
                  detail: `${one.scope}: ${runCounts(one)}`,
                }))}
                value={since}
                onChange={setChosen}
              />
              {before ? <Changes {...{ plan, before, run }} /> : null}
            </Card>
          ) : null}
          <Strangers plan={plan} strangers={run.strangers} />
          <View>
            <Words size="strong" heading={2}>
              {RUNS_WORDS.everyDevice({ results: run.results.length })}
            </Words>
            <LongList
              items={run.results}
              keyOf={({ interfaceId }) => interfaceId}
              render={(result) => <Result {...{ plan, result }} />}
            />
          </View>
        </>
      ) : null}
    </Page>
  );
}

function Head({ run }: { readonly run: ProofDetailView }) {
  return (
    <View style={{ gap: 2 }}>
      <Words size="strong">{runCounts({ ...run, strangers: run.strangers.length })}</Words>
      <Words size="second" tone="second">
        {[
          run.scope,
          sourceWords(run.source),
          run.person,
          RUNS_WORDS.planRevision({ revision: run.revision }),
        ]
          .filter(Boolean)
          .join(' · ')}
      </Words>
      <Words size="second" tone="second">
        {run.how === null
          ? RUNS_WORDS.itGoesOn
          : RUNS_WORDS.itWent({ how: proofEndWords(run.how) })}
      </Words>
    </View>
  );
}

const titleOf = (plan: Plan, interfaceId: string): string =>
  findInterface(plan, interfaceId)?.device.title ?? PROVE_WORDS.noLongerInThePlan;

function Changes({
  plan,
  before,
  run,
}: {
  readonly plan: Plan;
  readonly before: ProofDetailView;
  readonly run: ProofDetailView;
}) {
  const changes = runChanges(before.results, run.results);
  const was = new Set(before.strangers.map(({ mac }) => mac));
  const is = new Set(run.strangers.map(({ mac }) => mac));
  const came = [...is].filter((mac) => !was.has(mac));
  const left = [...was].filter((mac) => !is.has(mac));
  if (changes.length + came.length + left.length === 0)
    return <Words tone="moss">{RUNS_WORDS.everythingWasFoundAsItWas}</Words>;
  return (
    <View>
      <LongList
        items={changes}
        keyOf={({ interfaceId }) => interfaceId}
        render={(change) => (
          <Row>
            <Words size="strong">{titleOf(plan, change.interfaceId)}</Words>
            <Words size="second">{changeWords(change)}</Words>
          </Row>
        )}
      />
      {came.map((mac) => (
        <Row key={mac}>
          <Words size="second">{RUNS_WORDS.strangerWasNotThereThen({ mac })}</Words>
        </Row>
      ))}
      {left.map((mac) => (
        <Row key={mac}>
          <Words size="second">{RUNS_WORDS.strangerIsNoLongerThere({ mac })}</Words>
        </Row>
      ))}
    </View>
  );
}

const KIND_WORDS: Readonly<Record<string, string>> = {
  'found-as-planned': RUNS_WORDS.asPlanned,
  contradicted: 'otherwise',
  'no-answer': 'silent',
};

const kindWords = (result: ProofResult | undefined): string =>
  result ? (KIND_WORDS[result.kind] ?? result.kind) : RUNS_WORDS.notAsked2;

function changeWords({ before, after, values }: RunChange): string {
  const kinds = before?.kind === after?.kind ? [] : [`${kindWords(before)} → ${kindWords(after)}`];
  const all = values.map(
    ({ value, before: was, after: is }) =>
      `${FOUND_WORDS[value]}: ${was || 'none'} → ${is || 'none'}`,
  );
  return [...kinds, ...all].join(' · ');
}

function Result({ plan, result }: { readonly plan: Plan; readonly result: ProofResult }) {
  const wide = useWide();
  const isFine = result.kind === 'found-as-planned';
  const found = foundWords(result.facts);
  return (
    <Row>
      <View style={{ flexDirection: wide ? 'row' : 'column', columnGap: 16, gap: 2 }}>
        <View style={wide ? { flex: 2 } : null}>
          <Words size="strong">{titleOf(plan, result.interfaceId)}</Words>
        </View>
        <View style={wide ? { flex: 5 } : null}>
          <Words size="second" tone={isFine ? 'moss' : 'brick'}>
            {isFine ? '✓ ' : '× '}
            {evidenceWords(result)} · {timeOf(result.at)}
          </Words>
          {found ? (
            <Words size="caption" tone="second">
              {found}
            </Words>
          ) : null}
        </View>
      </View>
    </Row>
  );
}
