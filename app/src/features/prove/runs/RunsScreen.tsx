import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { ProofView } from '@ipsonomo/core/api';
import { proofEndWords, sourceWords } from '@ipsonomo/language';
import { acts, reading } from '../../../data';
import { Notice, Page, Refusals, Row, Words } from '../../../parts';
import { issuesOf, plural } from '../../words';

export const runTime = (at: number): string => format(at, 'EEE d MMM, HH:mm');

/** "12 proven, 3 otherwise, 5 silent" */
export const runCounts = ({ proven, contradicted, silent, total }: ProofView): string => {
  const left = total - proven - contradicted - silent;
  return [
    `${proven} proven`,
    contradicted > 0 ? `${contradicted} otherwise` : '',
    silent > 0 ? `${silent} silent` : '',
    left > 0 ? `${left} not asked` : '',
  ]
    .filter(Boolean)
    .join(', ');
};

/** The runs that were kept, newest first. */
export function RunsScreen({ job }: { readonly job: string }) {
  const { data: runs, error } = useQuery(reading(acts.listProofs, { job }));
  const router = useRouter();
  return (
    <Page maxWidth={900}>
      <Words size="title" heading={1}>
        Kept runs
      </Words>
      <Refusals issues={issuesOf(error)} />
      {runs?.length === 0 ? (
        <Notice tone="plain" title="No run yet">
          Each run of a proof is kept here with all that it found, to be compared with a later one.
        </Notice>
      ) : null}
      <View>
        {runs?.map((run) => (
          <Row
            key={run.id}
            label={`run of ${runTime(run.startedAt)}, ${run.scope}`}
            onPress={() => router.navigate(`/job/${job}/run/${run.id}`)}
          >
            <Words size="strong">
              {runTime(run.startedAt)} · {run.scope}
            </Words>
            <Words size="second" tone={run.contradicted + run.silent > 0 ? 'brick' : 'moss'}>
              {runCounts(run)}
              {run.strangers > 0 ? ` · ${plural(run.strangers, 'stranger')}` : ''}
            </Words>
            <Words size="caption" tone="second">
              {[
                sourceWords(run.source),
                run.person,
                `plan revision ${run.revision}`,
                run.how === null ? 'goes on' : proofEndWords(run.how),
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
