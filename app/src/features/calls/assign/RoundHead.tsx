import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { Plan } from '@ipsonomo/core/plan';
import { carriedFor, type Carried, type RoundCost } from '@ipsonomo/core/round';
import { Notice, Words } from '../../../parts';
import { plural } from '../../words';
import { costOfOrder, type Round } from './use-round';

const CARRIED: Readonly<Record<Carried['what'], string>> = {
  cable: 'network cable',
  screwdriver: 'small screwdriver',
  card: 'memory cards',
  tool: "maker's tool",
  papers: 'papers of the kinds',
};

/** What a round costs, as a person would say it; what costs nothing is not said. */
export function costWords({ laptop, areas, cabinets, clashes, power }: RoundCost): string {
  const parts = [
    plural(cabinets + 1, 'cabinet'),
    areas > 0 ? plural(areas + 1, 'area') : '',
    laptop > 0 ? `the laptop set anew ${plural(laptop, 'time')}` : '',
    clashes > 0 ? `${plural(clashes, 'pair')} with one factory address powered together` : '',
    power > 0 ? `${plural(power, 'finished device')} cut off by a power cycle` : '',
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
      <Words size="second">Carry: {carried}.</Words>
      <Words size="second" tone="second">
        The round: {costWords(ownCost ?? best.cost)}.
      </Words>
      {isOwn ? (
        <Notice tone="plain" title="You walk in an order of your own">
          {`The best one costs: ${costWords(best.cost)}.`}
        </Notice>
      ) : null}
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        <Button
          type="outline"
          title={isOrdering ? 'The order is right' : 'Change the order'}
          onPress={() => onOrdering(!isOrdering)}
        />
        {isOrdering ? null : (
          <Button
            type="outline"
            title="Boxes at the desk"
            onPress={() => router.navigate(`/job/${job}/desk`)}
          />
        )}
        {isOwn ? (
          <Button type="outline" title="Back to the best order" onPress={() => walkAs(undefined)} />
        ) : null}
      </View>
    </View>
  );
}
