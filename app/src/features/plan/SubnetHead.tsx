import { useMemo } from 'react';
import { View } from 'react-native';
import { formatIpv4, hostCountOf, type Ipv4 } from '@ipsonomo/core/net';
import {
  givenAddresses,
  subnetInterfaces,
  oncePer,
  type Plan,
  type Subnet,
} from '@ipsonomo/core/plan';
import type { Snag } from '@ipsonomo/core/snags';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { AddressText, SubnetRuler, Words } from '../../parts';

interface Props {
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  readonly subnet: Subnet;
}

/** A subnet at a glance: its network, how full it is, and its ruler. */
export function SubnetHead({ plan, snags, subnet }: Props) {
  const given = useMemo(() => [...givenAddresses(plan, subnet.id)], [plan, subnet.id]);
  const clashes = useMemo(() => clashesIn(plan, subnet.id, snags), [plan, subnet.id, snags]);
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12 }}>
        <AddressText
          still
          address={formatIpv4(subnet.prefix.network)}
          length={subnet.prefix.length}
          suffix={`/${subnet.prefix.length}`}
        />
        <Words size="second" tone="second">
          {PLAN_WORDS.givenFree({
            given: given.length,
            prefix: hostCountOf(subnet.prefix) - given.length,
            vlan: subnet.vlan === undefined ? '' : PLAN_WORDS.vlan({ vlan: subnet.vlan }),
            clashes: clashes.size > 0 ? PLAN_WORDS.clash({ clashes: clashes.size }) : '',
          })}
        </Words>
      </View>
      <SubnetRuler subnet={subnet} given={given} clashes={clashes} />
    </View>
  );
}

/** Addresses of a subnet that something wrong is said of. */
export function clashesIn(plan: Plan, subnetId: string, snags: readonly Snag[]): ReadonlySet<Ipv4> {
  const wrong = wrongIds(snags);
  return new Set(
    subnetInterfaces(plan, subnetId)
      .filter(({ at, device }) => wrong.has(at.id) || wrong.has(device.id))
      .map(({ at }) => at.address),
  );
}

const wrongIds = oncePer(
  (snags: readonly Snag[]) =>
    new Set(
      snags.filter((one) => one.severity === 'wrong').flatMap((one) => [one.id, ...one.also]),
    ),
);
