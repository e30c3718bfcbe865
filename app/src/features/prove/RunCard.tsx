import { Button, LinearProgress } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { proofEndWords } from '@ipsonomo/language';
import type { ProofState } from '@ipsonomo/core/proof';
import { acts, reading, useAct, useActOn, useField } from '../../data';
import { Card, Notice, Refusals, Words } from '../../parts';
import { issuesOf, plural } from '../words';

const PHASES: Readonly<Record<ProofState['phase'], string>> = {
  sweep: 'Looking for everybody',
  ask: 'Asking the planned devices',
  strangers: 'Asking who else is there',
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
              {`${run.total - run.left} of ${run.total} asked to the end`}
            </Words>
          </View>
          <Button
            type="outline"
            title="Stop the run"
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
    <Notice tone="ochre" title={`The last run was ${proofEndWords(last.how)}`}>
      <Words size="second">
        {`${plural(left, 'device')} of ${last.total} (${last.scope}) were not asked.`}
      </Words>
      <Refusals issues={issuesOf(goOn.error)} />
      <Button
        type="outline"
        title={`Go on with the ${left}`}
        loading={goOn.isPending}
        onPress={() => goOn.mutate({ params: { job, proof: last.id }, body: { perSecond } })}
      />
    </Notice>
  );
}
