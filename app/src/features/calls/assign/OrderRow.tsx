import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { Row, Words } from '../../../parts';
import { placeOf } from '../../words';
import type { Awaited } from './awaited';
import { DragHandle } from './DragHandle';

interface Props {
  readonly one: Awaited;
  readonly order: readonly string[];
  readonly onOrder: (order: readonly string[]) => void;
}

const STEPS = [
  [ASSIGN_WORDS.up, -1],
  [ASSIGN_WORDS.down, 1],
] as const;

/** A call that can be moved: dragged, by one, or to the end of the round where it is skipped for now. */
export function OrderRow({ one, order, onOrder }: Props) {
  const { device, at } = one;
  const from = order.indexOf(at.id);
  const moveTo = (to: number) => {
    const others = order.filter((id) => id !== at.id);
    onOrder([...others.slice(0, to), at.id, ...others.slice(to)]);
  };
  const [drag, setDrag] = useState(0);
  const [height, setHeight] = useState(0);
  const drop = (by: number) => {
    setDrag(0);
    const places = height > 0 ? Math.round(by / height) : 0;
    if (places !== 0) moveTo(Math.min(order.length - 1, Math.max(0, from + places)));
  };
  return (
    <View
      onLayout={({ nativeEvent }) => setHeight(nativeEvent.layout.height)}
      style={
        drag === 0 ? undefined : { transform: [{ translateY: drag }], zIndex: 1, opacity: 0.85 }
      }
    >
      <Row>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <DragHandle
            label={ASSIGN_WORDS.drag({ title: device.title })}
            onMove={setDrag}
            onDrop={drop}
          />
          <View style={{ flex: 1 }}>
            <Words size="strong" lines={1}>
              {device.title}
            </Words>
            <Words size="second" tone="second" lines={1}>
              {placeOf(device)}
            </Words>
            <View style={{ flexDirection: 'row', gap: 8, paddingTop: 6 }}>
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
                title={ASSIGN_WORDS.last2}
                accessibilityLabel={ASSIGN_WORDS.last3({ title: device.title })}
                disabled={from === order.length - 1}
                onPress={() => moveTo(order.length - 1)}
              />
            </View>
          </View>
        </View>
      </Row>
    </View>
  );
}
