import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { Pressable, View } from 'react-native';
import {
  formatIpv4,
  givenAddresses,
  hostCountOf,
  type Ipv4,
  type Plan,
  type Snag,
  type Subnet,
} from '@ipsonomo/core';
import { AddressText, SubnetRuler, Words } from '../../parts';
import { useColours } from '../../theme';

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
  const subnet = plan.subnets.find((one) => one.id === shown);
  const choices = [
    { id: undefined, name: 'All', count: plan.devices.length },
    ...plan.subnets.map((one) => ({ id: one.id, name: one.name, count: counts.get(one.id) ?? 0 })),
  ];
  return (
    <View style={{ gap: 8 }}>
      <View
        role="radiogroup"
        aria-label="Subnet"
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
      {subnet ? <Shown {...{ id, plan, snags, subnet }} /> : null}
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
      style={{
        flexDirection: 'row',
        gap: 6,
        alignItems: 'center',
        minHeight: 40,
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

interface ShownProps {
  readonly id: string;
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  readonly subnet: Subnet;
}

function Shown({ id, plan, snags, subnet }: ShownProps) {
  const router = useRouter();
  const given = useMemo(() => [...givenAddresses(plan, subnet.id)], [plan, subnet.id]);
  const clashes = useMemo(() => clashesIn(plan, subnet.id, snags), [plan, subnet.id, snags]);
  return (
    <Pressable
      accessibilityRole="link"
      accessibilityLabel={`Open ${subnet.name}`}
      onPress={() => router.navigate(`/job/${id}/subnet/${subnet.id}`)}
      style={{ gap: 4 }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <AddressText
          still
          address={formatIpv4(subnet.prefix.network)}
          length={subnet.prefix.length}
          suffix={`/${subnet.prefix.length}`}
        />
        <Words size="second" tone="second">
          {given.length} given, {hostCountOf(subnet.prefix) - given.length} free
          {subnet.vlan === undefined ? '' : ` · VLAN ${subnet.vlan}`}
        </Words>
        <Words size="second" tone="plum">
          address by address
        </Words>
      </View>
      <SubnetRuler subnet={subnet} given={given} clashes={clashes} />
    </Pressable>
  );
}

/** Addresses of a subnet that something wrong is said of. */
export function clashesIn(plan: Plan, subnetId: string, snags: readonly Snag[]): ReadonlySet<Ipv4> {
  const wrong = new Set(
    snags.filter((one) => one.severity === 'wrong').flatMap((one) => [one.id, ...one.also]),
  );
  return new Set(
    plan.devices.flatMap((device) =>
      device.interfaces
        .filter((at) => at.subnetId === subnetId && (wrong.has(at.id) || wrong.has(device.id)))
        .map((at) => at.address),
    ),
  );
}
