import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import {
  deviceTakes,
  otherSides,
  sideEdits,
  type Side,
  type ThreeWays,
} from '@ipsonomo/core/entered';
import type { Device, Interface, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { ENTERED_WORDS } from '@ipsonomo/language';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { useEdit } from '../../../data';
import { Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly device: Device;
  readonly at: Interface;
  readonly rows: readonly ThreeWays[];
}

/** Whose value counts where they differ: the plan's, until another side is chosen, which then becomes the plan's. */
export function Sides({ job, plan, doc, device, at, rows }: Props) {
  const router = useRouter();
  const edit = useEdit(job);
  const { title } = device;
  const place = { plan, doc, device, at };
  const offers = rows.flatMap((row) =>
    row.verdict === 'differs'
      ? otherSides(row).flatMap((side) => {
          const edits = sideEdits(place, row, side);
          return edits ? [{ row, side, edits }] : [];
        })
      : [],
  );
  const takes = deviceTakes(rows);
  return (
    <View style={{ gap: 6 }}>
      {offers.length > 0 ? (
        <Words size="caption" tone="second">
          {CONTROLLER_WORDS.whatStandsInThePlanCounts}
        </Words>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {offers.map(({ row, side, edits }) => {
          const said = { value: ENTERED_WORDS[row.value], is: row[side] };
          const words = OFFER_WORDS[side](said);
          return (
            <Button
              key={`${row.value} ${side}`}
              type="outline"
              title={words}
              accessibilityLabel={`${title}: ${words}`}
              disabled={edit.isPending}
              onPress={() => edit.mutate({ edits, why: `${title}: ${words}` })}
            />
          );
        })}
      </View>
      <Refusals issues={issuesOf(edit.error)} />
      {takes.length > 0 ? (
        <Button
          type="clear"
          containerStyle={{ alignSelf: 'flex-start' }}
          title={CONTROLLER_WORDS.theDeviceHasToTake({ takes: takes.length })}
          accessibilityLabel={CONTROLLER_WORDS.theDeviceHasToTakeOn({
            ...{ takes: takes.length, title },
          })}
          onPress={() => router.navigate(`/job/${job}/call/${at.id}`)}
        />
      ) : null}
    </View>
  );
}

const OFFER_WORDS = {
  planned: CONTROLLER_WORDS.asTheProjectHasIt,
  entered: CONTROLLER_WORDS.asTheProjectHasIt,
  found: CONTROLLER_WORDS.asTheDeviceHasIt,
} satisfies Record<Side, unknown>;
