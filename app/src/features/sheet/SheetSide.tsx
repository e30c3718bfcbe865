import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { ScrollView, View } from 'react-native';
import { findSubnet, type Plan } from '@ipsonomo/core/plan';
import type { Snag } from '@ipsonomo/core/snags';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import type { Job } from '../../data';
import { Notice, Words } from '../../parts';
import { SPACE } from '../../theme';
import { DevicePane, PlanMore, PlanTools } from '../plan';
import { ofThings, SnagList, snagWords } from '../snags';

interface Props {
  readonly id: string;
  readonly job: Job;
  readonly subnetId: string | undefined;
  readonly selected: string | undefined;
}

/** Beside the sheet: the device that was opened, or what speaks against the plan. */
export function SheetSide({ id, job, subnetId, selected }: Props) {
  const router = useRouter();
  const { plan, doc, snags } = job;
  const shown = useMemo(
    () => (subnetId === undefined ? snags : ofThings(snags, thingsIn(plan, subnetId))),
    [snags, plan, subnetId],
  );
  if (selected !== undefined)
    return (
      <View style={{ flex: 1 }}>
        <Button
          type="clear"
          title={SHEET_WORDS.backToTheSnags}
          onPress={() => router.navigate(`/job/${id}/plan`)}
        />
        <DevicePane job={id} device={selected} />
      </View>
    );
  return (
    <ScrollView contentContainerStyle={{ padding: SPACE.page, gap: 12 }}>
      <Words size="device" heading={2}>
        {snagWords(plan, shown)}
      </Words>
      {shown.length === 0 ? (
        <Notice tone="moss">
          {SHEET_WORDS.nothingSpeaksAgainst({ plan: nameOf(plan, subnetId) })}
        </Notice>
      ) : (
        <SnagList {...{ job: id, plan, doc }} snags={shown} />
      )}
      <PlanTools id={id} job={job} />
      <PlanMore id={id} job={job} />
    </ScrollView>
  );
}

const nameOf = (plan: Plan, subnetId: string | undefined): string =>
  findSubnet(plan, subnetId)?.name ?? SHEET_WORDS.thisPlan;

/** The subnet, its devices and their interfaces. */
function thingsIn(plan: Plan, subnetId: string): ReadonlySet<string> {
  const ids = new Set<Snag['id']>([subnetId]);
  for (const device of plan.devices)
    for (const at of device.interfaces) if (at.subnetId === subnetId) ids.add(device.id).add(at.id);
  return ids;
}
