import { SNAGS_WORDS } from '@ipsonomo/language/screens/snags';
import { useJob } from '../../data';
import { Notice, Page, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';
import { SnagList } from './SnagList';
import { snagWords } from './snag-words';

/** Every snag of the plan by its cause. */
export function SnagsScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  return (
    <Page>
      <Words size="title" heading={1}>
        {SNAGS_WORDS.snags}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {job ? (
        <>
          <Words tone="second">{snagWords(job.plan, job.snags)}</Words>
          {job.snags.length === 0 ? (
            <Notice tone="moss">{SNAGS_WORDS.nothingInThisPlanSpeaksAgainst}</Notice>
          ) : (
            <SnagList job={id} plan={job.plan} doc={job.doc} snags={job.snags} />
          )}
        </>
      ) : null}
    </Page>
  );
}
