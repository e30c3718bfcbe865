import { View } from 'react-native';
import { nearOwnerTitle, ownerTitle } from '@ipsonomo/language';
import type { Plan } from '@ipsonomo/core/plan';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { usePresent } from '../../data';
import { timeOf, Words } from '../../parts';

interface Props {
  readonly plan: Plan;
  /** MACs, as a difference lists them. */
  readonly found: string;
}

/** Who answers at an address, one by one: whose MAC it is by the plan, and where and when it was last seen. */
export function Claimants({ plan, found }: Props) {
  const present = usePresent();
  return (
    <View style={{ gap: 2 }}>
      {found.split(', ').map((mac) => {
        const seen = present.filter((one) => one.mac === mac);
        const last = Math.max(...seen.map(({ lastAt }) => lastAt));
        const addresses = [...new Set(seen.map(({ address }) => address))].join(', ');
        const near = nearOwnerTitle(plan, mac);
        const words = [
          mac,
          ownerTitle(plan, mac) || PROVE_WORDS.nobodyOfThePlan,
          ownerTitle(plan, mac) === '' && near !== '' ? PROVE_WORDS.nearlyTheMacOf({ near }) : '',
          seen.length === 0 ? '' : PROVE_WORDS.lastSeenAt({ last: timeOf(last), addresses }),
        ];
        return (
          <Words key={mac} size="second" tone="second">
            {words.filter(Boolean).join(' · ')}
          </Words>
        );
      })}
    </View>
  );
}
