import { Button, LinearProgress } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { proofEndWords } from '@ipsonomo/language';
import type { ProofState } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { acts, reading, useAct, useActOn, useField } from '../../data';
import { Card, Notice, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

const PHASES: Readonly<Record<ProofState['phase'], string>> = {
  sweep: PROVE_WORDS.lookingForEverybody,
  ask: PROVE_WORDS.askingThePlannedDevices,
  strangers: PROVE_WORDS.askingWhoElseIsThere,
  ended: '',
};

/** How the run of this job stands; undefined while none goes on. */
export function useRun(job: string): ProofState | undefined {
  const field = useField();
  const state = field?.proof ?? null;
  return state && state.phase !== 'ended' ? state : undefined;
}

/** The run that goes on, or the one that was left in the middle. */
export function RunCard({ job, perSecond }: { readonly job: string; readonly perSecond: number }) {
  const run = useRun(job);
  const stop = useAct(acts.stopProof, { job });
  if (run)
    return (
      <Card strong>
        <Words size="strong">{PHASES[run.phase]}</Words>
        <LinearProgress
          variant="determinate"
          value={run.total === 0 ? 0 : (run.total - run.left) / run.total}
        />
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <View style={{ flex: 1 }}>
            <Words size="second" tone="second">
              {PROVE_WORDS.ofAskedToTheEnd({ total: run.total - run.left, total2: run.total })}
            </Words>
          </View>
          <Button
            type="outline"
            title={PROVE_WORDS.stopTheRun}
            loading={stop.isPending}
            onPress={() => stop.mutate()}
          />
        </View>
        <Refusals issues={issuesOf(stop.error)} />
      </Card>
    );
  return <LeftOver {...{ job, perSecond }} />;
}

function LeftOver({ job, perSecond }: { readonly job: string; readonly perSecond: number }) {
  const goOn = useActOn(acts.goOnProof);
  const last = useQuery(reading(acts.listProofs, { job })).data?.[0];
  if (!last || last.endedAt === null || last.how === null || last.how === 'done') return null;
  const left = last.total - last.proven - last.contradicted - last.silent;
  if (left <= 0) return null;
  return (
    <Notice tone="ochre" title={PROVE_WORDS.theLastRunWas({ how: proofEndWords(last.how) })}>
      <Words size="second">
        {PROVE_WORDS.deviceOfWereNotAsked({ left, total: last.total, scope: last.scope })}
      </Words>
      <Refusals issues={issuesOf(goOn.error)} />
      <Button
        type="outline"
        title={PROVE_WORDS.goOnWithThe({ left })}
        loading={goOn.isPending}
        onPress={() => goOn.mutate({ params: { job, proof: last.id }, body: { perSecond } })}
      />
    </Notice>
  );
}
