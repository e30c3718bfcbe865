import { useMemo } from 'react';
import { Pressable, View } from 'react-native';
import { findSubnet, type Plan } from '@ipsonomo/core/plan';
import type { Snag } from '@ipsonomo/core/snags';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { arrowsChoose, LinkTo, spacePresses, Words } from '../../parts';
import { TOUCH, useColours } from '../../theme';
import { SubnetHead } from '../plan';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  /** The subnet whose devices are shown; undefined for all. */
  readonly shown: string | undefined;
  readonly onShow: (subnetId: string | undefined) => void;
}

/** Which subnet is shown, with its ruler; all of them at first. */
export function SubnetBar({ id, plan, snags, shown, onShow }: Props) {
  const counts = useMemo(() => {
    const all = new Map<string, number>();
    for (const { interfaces } of plan.devices)
      for (const { subnetId } of interfaces) all.set(subnetId, (all.get(subnetId) ?? 0) + 1);
    return all;
  }, [plan]);
  const subnet = findSubnet(plan, shown);
  const choices = [
    { id: undefined, name: SHEET_WORDS.all, count: plan.devices.length },
    ...plan.subnets.map((one) => ({ id: one.id, name: one.name, count: counts.get(one.id) ?? 0 })),
  ];
  return (
    <View style={{ gap: 8 }}>
      <View
        role="radiogroup"
        aria-label={COMMON_WORDS.subnet}
        {...arrowsChoose('radio', (at) => onShow(choices[at]?.id))}
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          gap: 6,
          maxHeight: 132,
          overflow: 'scroll',
        }}
      >
        {choices.map((one) => (
          <Chip
            key={one.id ?? 'all'}
            {...one}
            isChosen={one.id === shown}
            onPress={() => onShow(one.id)}
          />
        ))}
      </View>
      {subnet ? (
        <LinkTo
          href={`/job/${id}/subnet/${subnet.id}`}
          accessibilityLabel={COMMON_WORDS.open({ name: subnet.name })}
        >
          <SubnetHead {...{ plan, snags, subnet }} />
        </LinkTo>
      ) : null}
    </View>
  );
}

interface ChipProps {
  readonly name: string;
  readonly count: number;
  readonly isChosen: boolean;
  readonly onPress: () => void;
}

function Chip({ name, count, isChosen, onPress }: ChipProps) {
  const colours = useColours();
  return (
    <Pressable
      role="radio"
      aria-checked={isChosen}
      onPress={onPress}
      tabIndex={isChosen ? 0 : -1}
      {...spacePresses(onPress)}
      style={{
        flexDirection: 'row',
        gap: 6,
        alignItems: 'center',
        minHeight: TOUCH,
        paddingHorizontal: 12,
        borderWidth: 1,
        borderRadius: 4,
        borderColor: isChosen ? colours.plum : colours.line,
        backgroundColor: isChosen ? colours.surface : 'transparent',
        borderBottomWidth: isChosen ? 3 : 1,
      }}
    >
      <Words size="second" tone={isChosen ? 'plum' : 'ink'} lines={1}>
        {name}
      </Words>
      <Words size="caption" tone="second">
        {count}
      </Words>
    </Pressable>
  );
}
