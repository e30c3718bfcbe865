import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import type { Job } from '../../data';
import { Words } from '../../parts';
import { BothChanged } from './join/BothChanged';
import { Realms } from './Realms';
import { ThisJob } from './ThisJob';

interface Props {
  readonly id: string;
  readonly job: Job;
}

/** What can be done with the plan beside adding devices: on top, where one need not scroll for it. */
export function PlanTools({ id, job }: Props) {
  const router = useRouter();
  const { subnets, devices, blocks } = job.plan;
  const tools: readonly (readonly [title: string, path: string])[] = [
    [PLAN_WORDS.addASubnet, 'new-subnet'],
    ...(subnets.length > 0 ? [[PLAN_WORDS.devicesFromAList, 'import'] as const] : []),
    ...(devices.length > 0 ? [[PLAN_WORDS.copyAMachine, 'copy'] as const] : []),
    [COMMON_WORDS.kinds, 'kinds'],
    [PLAN_WORDS.revisions, 'revisions'],
    [PLAN_WORDS.splitABlock, 'block/new'],
    ...blocks.map(
      (block) => [PLAN_WORDS.split({ name: block.name }), `block/${block.id}`] as const,
    ),
  ];
  return (
    <View style={{ gap: 8 }}>
      <BothChanged job={id} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {tools.map(([title, path]) => (
          <Button
            key={path}
            type="outline"
            title={title}
            buttonStyle={{ paddingHorizontal: 11 }}
            onPress={() => router.navigate(`/job/${id}/${path}`)}
          />
        ))}
      </View>
      <Words size="second" tone="second">
        {revisionWords(job.now)}
      </Words>
    </View>
  );
}

/** The rarer things of a plan, and the job itself. */
export function PlanMore({ id, job }: Props) {
  return (
    <View style={{ gap: 8, paddingTop: 12 }}>
      <Words size="strong" heading={2}>
        {COMMON_WORDS.thePlanItself}
      </Words>
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
