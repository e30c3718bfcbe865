import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { DIFFERENCE_HEADS, differenceWords, SETTLEMENT_WORDS } from '@ipsonomo/language';
import type { Plan, PlanDoc, PlannedInterface } from '@ipsonomo/core/plan';
import {
  settlementsOf,
  stayEdit,
  type FoundDifference,
  type Settlement,
} from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { newId, useEdit, whoDecides } from '../../data';
import { ReasonForm, Refusals, Words } from '../../parts';
import { issuesOf } from '../words';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly planned: PlannedInterface;
  readonly difference: FoundDifference;
}

/** Planned and found of one value side by side, and what a person may say of it. */
export function DifferenceLine({ difference }: Pick<Props, 'difference'>) {
  const { what, expected, found } = difference;
  return (
    <View style={{ gap: 2 }}>
      <Words size="second" tone="brick">
        × {DIFFERENCE_HEADS[what]}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 }}>
        <Value name="planned" value={expected || 'none'} />
        <Value name="found" value={found || 'none'} />
      </View>
    </View>
  );
}

function Value({ name, value }: { readonly name: string; readonly value: string }) {
  return (
    <View style={{ flexDirection: 'row', gap: 8, alignItems: 'baseline' }}>
      <Words size="caption" tone="second">
        {name}
      </Words>
      <Words size="strong">{value}</Words>
    </View>
  );
}

/** The outcomes of one difference; nothing changes until one is chosen. */
export function Settle(props: Props) {
  const { job, plan, doc, planned, difference } = props;
  const router = useRouter();
  const edit = useEdit(job);
  const [isStaying, setStaying] = useState(false);
  const { device, at } = planned;
  const title = device.title;
  const act = (one: Settlement) => {
    switch (one.kind) {
      case 'device-is-wrong':
        return router.navigate(`/job/${job}/call/${at.id}`);
      case 'another-device':
        return router.navigate(`/job/${job}/swap/${at.id}`);
      case 'both-stay':
        return setStaying(true);
      default:
        return edit.mutate({ edits: one.edits, why: `${title}: ${SETTLEMENT_WORDS[one.kind]}` });
    }
  };
  if (isStaying) return <Staying {...props} edit={edit} onLeave={() => setStaying(false)} />;
  return (
    <View style={{ gap: 6 }}>
      <Refusals issues={issuesOf(edit.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {settlementsOf({ plan, doc, device, at }, difference).map((one) => (
          <Button
            key={one.kind}
            type="outline"
            title={shortOf(one, difference)}
            accessibilityLabel={PROVE_WORDS.text({
              title,
              what: difference.what === 'unbound' ? PROVE_WORDS.bindIt : SETTLEMENT_WORDS[one.kind],
            })}
            onPress={() => act(one)}
          />
        ))}
      </View>
    </View>
  );
}

function shortOf(one: Settlement, { what }: FoundDifference): string {
  if (one.kind === 'swapped') return PROVE_WORDS.swappedWith({ withTitle: one.withTitle });
  return what === 'unbound' ? PROVE_WORDS.bindIt : SHORT[one.kind];
}

const SHORT = {
  'plan-was-wrong': PROVE_WORDS.planWasWrong,
  'device-is-wrong': PROVE_WORDS.deviceIsWrong,
  'another-device': PROVE_WORDS.anotherDevice,
  'both-stay': PROVE_WORDS.bothStay,
} as const;

function Staying({
  planned,
  difference,
  edit,
  onLeave,
}: Props & { readonly edit: ReturnType<typeof useEdit>; readonly onLeave: () => void }) {
  const { at, device } = planned;
  const stay = async (reason: string) => {
    const said = { reason, person: await whoDecides() };
    const edits = [stayEdit(newId(), at.id, difference, said)];
    const why = PROVE_WORDS.itStays({
      title: device.title,
      difference: differenceWords(difference),
      reason,
    });
    return edit.mutateAsync({ edits, why: why.slice(0, 300) });
  };
  return (
    <ReasonForm
      about={`both stay ${at.id} ${JSON.stringify(difference)}`}
      label={PROVE_WORDS.whyMayBothStay}
      title={PROVE_WORDS.letBothStay}
      leave={PROVE_WORDS.leaveItOpen}
      isBusy={edit.isPending}
      onSay={stay}
      onLeave={onLeave}
    />
  );
}
