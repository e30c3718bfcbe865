import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { ProofView } from '@ipsonomo/core/api';
import { proofEndWords, sourceWords } from '@ipsonomo/language';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { RUNS_WORDS } from '@ipsonomo/language/screens/runs';
import { acts, reading } from '../../../data';
import { Notice, Page, Refusals, Row, Words } from '../../../parts';
import { issuesOf } from '../../words';

export const runTime = (at: number): string => format(at, 'EEE d MMM, HH:mm');

/** "12 proven, 3 otherwise, 5 silent" */
export const runCounts = ({ proven, contradicted, silent, total }: ProofView): string => {
  const left = total - proven - contradicted - silent;
  return [
    RUNS_WORDS.proven({ proven }),
    contradicted > 0 ? RUNS_WORDS.otherwise({ contradicted }) : '',
    silent > 0 ? RUNS_WORDS.silent({ silent }) : '',
    left > 0 ? RUNS_WORDS.notAsked({ left }) : '',
  ]
    .filter(Boolean)
    .join(', ');
};

interface Props {
  readonly job: string;
  /** The one that stands beside the list. */
  readonly chosen?: string | undefined;
}

/** The runs that were kept, newest first. */
export function RunList({ job, chosen }: Props) {
  const { data: runs, error } = useQuery(reading(acts.listProofs, { job }));
  const router = useRouter();
  return (
    <Page maxWidth={900}>
      <Words size="title" heading={1}>
        {PROVE_WORDS.keptRuns}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {runs?.length === 0 ? (
        <Notice tone="plain" title={RUNS_WORDS.noRunYet}>
          {RUNS_WORDS.eachRunOfAProofIs}
        </Notice>
      ) : null}
      <View>
        {runs?.map((run) => (
          <Row
            key={run.id}
            selected={run.id === chosen}
            label={RUNS_WORDS.runOf({ startedAt: runTime(run.startedAt), scope: run.scope })}
            onPress={() => router.navigate(`/job/${job}/run/${run.id}`)}
          >
            <Words size="strong">
              {runTime(run.startedAt)} · {run.scope}
            </Words>
            <Words size="second" tone={run.contradicted + run.silent > 0 ? 'brick' : 'moss'}>
              {runCounts(run)}
              {run.strangers > 0 ? RUNS_WORDS.stranger({ strangers: run.strangers }) : ''}
            </Words>
            <Words size="caption" tone="second">
              {[
                sourceWords(run.source),
                run.person,
                RUNS_WORDS.planRevision({ revision: run.revision }),
                run.how === null ? RUNS_WORDS.goesOn : proofEndWords(run.how),
              ]
                .filter(Boolean)
                .join(' · ')}
            </Words>
          </Row>
        ))}
      </View>
    </Page>
  );
}
