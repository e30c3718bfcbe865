import { View } from 'react-native';
import { strangerPlace, strangerWords } from '@ipsonomo/language';
import type { Plan } from '@ipsonomo/core/plan';
import type { Stranger } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { LongList, MacText, Row, Words } from '../../parts';

interface Props {
  readonly plan: Plan;
  readonly strangers: readonly Stranger[];
}

/** Whoever answered and is nobody of the plan, with what is known of them. */
export function Strangers({ plan, strangers }: Props) {
  if (strangers.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {PROVE_WORDS.nobodyPlannedThem({ strangers: strangers.length })}
      </Words>
      <LongList
        items={strangers}
        keyOf={({ mac }) => mac}
        render={(one) => (
          <Row>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}>
              <MacText mac={one.mac} size={15} />
              <Words size="strong">{one.addresses.join(', ')}</Words>
            </View>
            <Words size="second" tone="second">
              {[strangerPlace(plan, one), strangerWords(one)].filter(Boolean).join(' · ')}
            </Words>
          </Row>
        )}
      />
    </View>
  );
}
