import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { Plan } from '@ipsonomo/core/plan';
import { carriedFor, type Carried, type RoundCost } from '@ipsonomo/core/round';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { HOW_LONG_WORDS } from '@ipsonomo/language/screens/how-long';
import { CALLS_WORDS } from '@ipsonomo/language/screens/calls';
import { Notice, Words } from '../../../parts';
import { costOfOrder, type Round } from './use-round';

const CARRIED: Readonly<Record<Carried['what'], string>> = {
  cable: ASSIGN_WORDS.networkCable,
  screwdriver: ASSIGN_WORDS.smallScrewdriver,
  card: ASSIGN_WORDS.memoryCards,
  tool: ASSIGN_WORDS.makersTool,
  papers: ASSIGN_WORDS.papersOfTheKinds,
};

/** What a round costs, as a person would say it; what costs nothing is not said. */
export function costWords({ laptop, areas, cabinets, clashes, power }: RoundCost): string {
  const parts = [
    ASSIGN_WORDS.cabinet({ cabinets: cabinets + 1 }),
    areas > 0 ? ASSIGN_WORDS.area({ areas: areas + 1 }) : '',
    laptop > 0 ? ASSIGN_WORDS.theLaptopSetAnewTime({ laptop }) : '',
    clashes > 0 ? ASSIGN_WORDS.pairWithOneFactoryAddressPowered({ clashes }) : '',
    power > 0 ? ASSIGN_WORDS.finishedDeviceCutOffByA({ power }) : '',
  ];
  return parts.filter((part) => part !== '').join(', ');
}

function carriedOn(plan: Plan, order: readonly string[]): string {
  const left = new Set(order);
  const devices = plan.devices.filter(({ interfaces }) =>
    interfaces.some(({ id }) => left.has(id)),
  );
  return carriedFor(plan, new Set(devices.map(({ id }) => id)))
    .map(({ what, for: whom }) =>
      what === 'cable' ? CARRIED.cable : `${CARRIED[what]} (${whom.length})`,
    )
    .join(', ');
}

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly round: Round;
  readonly isOrdering: boolean;
  readonly onOrdering: (on: boolean) => void;
}

/** What to carry, what the round costs, and the way to another order. */
export function RoundHead({ job, plan, round, isOrdering, onOrdering }: Props) {
  const router = useRouter();
  const { best, isOwn, order, walkAs } = round;
  const carried = useMemo(() => carriedOn(plan, best?.order ?? []), [plan, best]);
  const ownCost = useMemo(
    () => (isOwn ? costOfOrder(plan, order) : undefined),
    [plan, isOwn, order],
  );
  if (!best || best.order.length === 0) return null;
  return (
    <View style={{ gap: 8 }}>
      <Words size="second">{ASSIGN_WORDS.carry({ carried })}</Words>
      <Words size="second" tone="second">
        {ASSIGN_WORDS.theRound({ ownCost: costWords(ownCost ?? best.cost) })}
      </Words>
      {isOwn ? (
        <Notice tone="plain" title={ASSIGN_WORDS.youWalkInAnOrderOf}>
          {ASSIGN_WORDS.theBestOneCosts({ cost: costWords(best.cost) })}
        </Notice>
      ) : null}
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        <Button
          type="outline"
          title={isOrdering ? ASSIGN_WORDS.theOrderIsRight : ASSIGN_WORDS.changeTheOrder}
          onPress={() => onOrdering(!isOrdering)}
        />
        {isOrdering ? null : (
          <Button
            type="outline"
            title={CALLS_WORDS.boxesAtTheDesk}
            onPress={() => router.navigate(`/job/${job}/desk`)}
          />
        )}
        {isOrdering ? null : (
          <Button
            type="outline"
            title={HOW_LONG_WORDS.howLong}
            onPress={() => router.navigate(`/job/${job}/how-long`)}
          />
        )}
        {isOwn ? (
          <Button
            type="outline"
            title={ASSIGN_WORDS.backToTheBestOrder}
            onPress={() => walkAs(undefined)}
          />
        ) : null}
      </View>
    </View>
  );
}
