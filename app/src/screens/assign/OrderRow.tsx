import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { Row, Words } from '../../parts';
import { placeOf } from '../words';
import type { Awaited } from './awaited';

interface Props {
  readonly one: Awaited;
  readonly order: readonly string[];
  readonly onOrder: (order: readonly string[]) => void;
}

const STEPS = [
  ['Up', -1],
  ['Down', 1],
] as const;

/** A call that can be moved: by one, or to the end of the round where it is skipped for now. */
export function OrderRow({ one, order, onOrder }: Props) {
  const { device, at } = one;
  const from = order.indexOf(at.id);
  const moveTo = (to: number) => {
    const others = order.filter((id) => id !== at.id);
    onOrder([...others.slice(0, to), at.id, ...others.slice(to)]);
  };
  return (
    <Row>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Words size="strong" lines={1}>
            {device.title}
          </Words>
          <Words size="second" tone="second" lines={1}>
            {placeOf(device)}
          </Words>
        </View>
        {STEPS.map(([title, by]) => (
          <Button
            key={title}
            type="outline"
            title={title}
            accessibilityLabel={`${title}: ${device.title}`}
            disabled={from + by < 0 || from + by >= order.length}
            onPress={() => moveTo(from + by)}
          />
        ))}
        <Button
          type="outline"
          title="Last"
          accessibilityLabel={`Last: ${device.title}`}
          disabled={from === order.length - 1}
          onPress={() => moveTo(order.length - 1)}
        />
      </View>
    </Row>
  );
}
