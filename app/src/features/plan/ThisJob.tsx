import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { acts, download, jobsQuery, pathOf, useAct } from '../../data';
import { Card, Field, Refusals, useKept, Words } from '../../parts';
import { issuesOf } from '../words';

/** For good: only after everything of it was written to one file, and only by typing its name. */
function Deleting({ job, name }: { readonly job: string; readonly name: string }) {
  const router = useRouter();
  const remove = useAct(acts.deleteJob, { job });
  const [typed, setTyped] = useState('');
  return (
    <Card>
      <Words size="second">{PLAN_WORDS.deleteMore}</Words>
      <Button
        type="outline"
        title={PLAN_WORDS.downloadEverything}
        onPress={() => download(pathOf(acts.fetchWholeJob, { job }))}
      />
      <Field label={PLAN_WORDS.typeItsName({ name })} value={typed} onChange={setTyped} />
      <Button
        type="outline"
        title={PLAN_WORDS.deleteForGood}
        disabled={typed.trim() !== name}
        loading={remove.isPending}
        onPress={() =>
          remove.mutate({ name: typed.trim() }, { onSuccess: () => router.navigate('/') })
        }
      />
      <Refusals issues={issuesOf(remove.error)} />
    </Card>
  );
}

/** The name of a job, and whether it is still worked on. */
export function ThisJob({ job, name }: { readonly job: string; readonly name: string }) {
  const router = useRouter();
  const { data: jobs = [] } = useQuery(jobsQuery);
  const rename = useAct(acts.renameJob, { job });
  const archive = useAct(acts.archiveJob, { job });
  const [typed, setTyped, forget] = useKept(`name of ${job}`, name);
  const isArchived = jobs.find(({ id }) => id === job)?.archived ?? false;
  const putAway = () =>
    archive.mutate(
      { archived: !isArchived },
      { onSuccess: () => (isArchived ? undefined : router.navigate('/')) },
    );
  return (
    <View style={{ gap: 8, paddingTop: 12 }}>
      <Words size="strong" heading={2}>
        {PLAN_WORDS.thisJob}
      </Words>
      <Field label={PLAN_WORDS.itsName} value={typed} onChange={setTyped} />
      <Button
        type="outline"
        title={PLAN_WORDS.rename}
        disabled={typed.trim() === '' || typed.trim() === name}
        loading={rename.isPending}
        onPress={() => rename.mutate({ name: typed }, { onSuccess: forget })}
      />
      <Button
        type="outline"
        title={isArchived ? PLAN_WORDS.takeBack : PLAN_WORDS.putAway}
        loading={archive.isPending}
        onPress={putAway}
      />
      {isArchived ? null : (
        <Words size="second" tone="second">
          {PLAN_WORDS.putAwayMore}
        </Words>
      )}
      <Button
        type="outline"
        title={PLAN_WORDS.anotherLaptop}
        onPress={() => router.navigate(`/job/${job}/join`)}
      />
      {isArchived ? <Deleting job={job} name={name} /> : null}
      <Refusals issues={issuesOf(rename.error ?? archive.error)} />
    </View>
  );
}
