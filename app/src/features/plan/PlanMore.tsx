import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import type { Job } from '../../data';
import { Words } from '../../parts';
import { Realms } from './Realms';
import { ThisJob } from './ThisJob';

interface Props {
  readonly id: string;
  readonly job: Job;
}

/** What else can be done with the plan. */
export function PlanMore({ id, job }: Props) {
  const router = useRouter();
  const go = (path: string) => () => router.navigate(`/job/${id}/${path}`);
  return (
    <View style={{ gap: 8, paddingTop: 12 }}>
      <Words size="strong" heading={2}>
        {COMMON_WORDS.thePlanItself}
      </Words>
      <Words size="second" tone="second">
        {revisionWords(job.now)}
      </Words>
      <Button type="outline" title={PLAN_WORDS.revisions} onPress={go('revisions')} />
      <Button type="outline" title={COMMON_WORDS.kinds} onPress={go('kinds')} />
      {job.plan.blocks.map((block) => (
        <Button
          key={block.id}
          type="outline"
          title={PLAN_WORDS.split({ name: block.name })}
          onPress={go(`block/${block.id}`)}
        />
      ))}
      <Button type="outline" title={PLAN_WORDS.splitABlock} onPress={go('block/new')} />
      <Button type="outline" title={PLAN_WORDS.addASubnet} onPress={go('new-subnet')} />
      {job.plan.subnets.length > 0 ? (
        <Button type="outline" title={PLAN_WORDS.devicesFromAList} onPress={go('import')} />
      ) : null}
      {job.plan.devices.length > 0 ? (
        <Button type="outline" title={PLAN_WORDS.copyAMachine} onPress={go('copy')} />
      ) : null}
      <Realms id={id} plan={job.plan} />
      <ThisJob key={job.view.name} job={id} name={job.view.name} />
    </View>
  );
}

function revisionWords({ revision, lastNamed }: Job['now']): string {
  const since = revision - lastNamed;
  return lastNamed > 0 && since > 0
    ? PLAN_WORDS.revisionSinceTheLastOneWith({ revision, since })
    : PLAN_WORDS.revision({ revision });
}
