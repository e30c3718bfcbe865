import { Button, LinearProgress } from '@rneui/themed';
import type { ListView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { IMPORT_WORDS } from '@ipsonomo/language/screens/import';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { acts, chooseFile, useAct, useJob, useList } from '../../../data';
import { Notice, Page, Refusals, useDraft, Words } from '../../../parts';
import { issuesOf } from '../../words';
import { Matching } from './Matching';

const readingWords = (view: ListView | undefined): string =>
  view?.state === 'waiting'
    ? IMPORT_WORDS.fileToBeReadBeforeIt({ before: view.before })
    : IMPORT_WORDS.beingRead;

/** A list of devices from a spreadsheet: chosen, read, matched, seen, and only then taken. */
export function ImportScreen({ job: id }: { readonly job: string }) {
  const { job, error } = useJob(id);
  const send = useAct(acts.sendList, { job: id });
  // A list that was sent is there for as long as the server keeps it, also after a reload.
  const [list, setList] = useDraft(`list ${id}`);
  const { data: view, error: lost } = useList(id, list || undefined);
  // The server keeps few lists, and none when it starts anew: it is chosen again.
  const isGone = issuesOf(lost)?.some(({ code }) => code === 'thing.unknown') === true;
  const choose = async () => {
    const file = await chooseFile('.xlsx,.csv,.txt,.tsv');
    if (!file) return;
    setList('');
    send.mutate(file, { onSuccess: (made) => setList(made.id) });
  };
  const isBusy =
    send.isPending || (!isGone && view?.state === 'reading') || view?.state === 'waiting';
  if (job && list !== '' && view?.state === 'ready')
    return (
      <Matching
        key={list}
        {...{ id, list }}
        plan={job.plan}
        sheets={view.sheets}
        onAgain={() => void choose()}
        onTaken={() => setList('')}
      />
    );
  return (
    <Page
      action={
        <Button
          size="lg"
          title={COMMON_WORDS.chooseAFile}
          loading={isBusy}
          onPress={() => void choose()}
        />
      }
    >
      <Words size="title" heading={1}>
        {PLAN_WORDS.devicesFromAList}
      </Words>
      <Words tone="second">{IMPORT_WORDS.xlsxOrCsvOneDeviceA}</Words>
      {isBusy ? (
        <>
          <Words>{readingWords(view)}</Words>
          <LinearProgress
            value={view?.state === 'reading' ? view.share : 0}
            variant={view?.state === 'reading' ? 'determinate' : 'indeterminate'}
          />
        </>
      ) : null}
      {view?.state === 'failed' ? (
        <>
          <Refusals issues={[view.issue]} />
          <Notice tone="plain">{IMPORT_WORDS.nothingWasTakenFromIt}</Notice>
        </>
      ) : null}
      <Refusals issues={issuesOf(error ?? send.error ?? (isGone ? undefined : lost))} />
    </Page>
  );
}
