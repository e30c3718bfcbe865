import { View } from 'react-native';
import { strangerWords, type Stranger } from '@ipsonomo/core';
import { MacText, Row, Words } from '../../parts';

/** Whoever answered and is nobody of the plan, with what is known of them. */
export function Strangers({ strangers }: { readonly strangers: readonly Stranger[] }) {
  if (strangers.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        Nobody planned them · {strangers.length}
      </Words>
      {strangers.map((one) => (
        <Row key={one.mac}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}>
            <MacText mac={one.mac} size={15} />
            <Words size="strong">{one.addresses.join(', ')}</Words>
          </View>
          <Words size="second" tone="second">
            {strangerWords(one)}
          </Words>
        </Row>
      ))}
    </View>
  );
}
