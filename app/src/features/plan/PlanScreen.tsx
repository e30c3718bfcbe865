import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { lazy, Suspense } from 'react';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { useJob } from '../../data';
import { Page, Refusals, Words } from '../../parts';
import { useWide } from '../../theme';
import { snagWords } from '../snags';
import { issuesOf } from '../words';
import { FoundOrAll } from './FoundOrAll';
import { PlanMore, PlanTools } from './PlanMore';
import { SnagLine } from './SnagLine';

/** Comes when there is room for it: a phone has no sheet. */
const PlanSheet = lazy(async () => ({ default: (await import('../sheet')).PlanSheet }));

interface Props {
  readonly job: string;
  /** The device shown beside the list where it is wide. */
  readonly selected?: string;
}

/** Subnets and devices as planned. */
export function PlanScreen({ job, selected }: Props) {
  const wide = useWide();
  const router = useRouter();
  const { job: now, error } = useJob(job);
  const view = now?.view;
  const empty = view !== undefined && view.subnets.length === 0;
  if (wide && now && !empty)
    return (
      <Suspense fallback={null}>
        <PlanSheet id={job} job={now} selected={selected} />
      </Suspense>
    );
  return (
    <Page
      maxWidth={820}
      action={
        empty ? (
          <Button
            size="lg"
            title={PLAN_WORDS.addTheFirstSubnet}
            onPress={() => router.navigate(`/job/${job}/new-subnet`)}
          />
        ) : (
          <Button
            size="lg"
            title={COMMON_WORDS.addDevices}
            onPress={() => router.navigate(`/job/${job}/new-devices`)}
          />
        )
      }
    >
      <Words size="title" heading={1}>
        {view?.name ?? COMMON_WORDS.plan}
      </Words>
      <Refusals issues={issuesOf(error)} />
      {now && !empty ? (
        <SnagLine
          words={snagWords(now.plan, now.snags)}
          isClear={now.snags.length === 0}
          onPress={() => router.navigate(`/job/${job}/snags`)}
        />
      ) : null}
      {empty ? (
        <>
          <Words tone="second">{PLAN_WORDS.aPlanBeginsWithASubnet}</Words>
          <Button
            type="outline"
            title={PLAN_WORDS.orBeginWithWhatIsThere}
            onPress={() => router.navigate(`/job/${job}/known`)}
          />
        </>
      ) : null}
      {now ? <PlanTools id={job} job={now} /> : null}
      {now && !empty ? <FoundOrAll id={job} job={now} /> : null}
      {now ? <PlanMore id={job} job={now} /> : null}
    </Page>
  );
}
