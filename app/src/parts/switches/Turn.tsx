import { Pressable, View } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { TOUCH, useColours } from '../../theme';
import { Words } from '../Words';
import { Dial } from './Dial';
import { digitOf } from './digit';
import type { ElementProps } from './element';
import { Thumbwheel } from './Thumbwheel';

/** A dial as it is drawn, what it is called, how it should stand instead, and one step either way. */
export function Turn({
  element,
  positions: [position = 0],
  wanted: [wanted] = [],
  onTurn,
}: ElementProps<'dial'>) {
  const { label, positions, look } = element;
  const isOther = wanted !== undefined && wanted !== position;
  const Look = look === 'thumbwheel' ? Thumbwheel : Dial;
  return (
    <View style={{ alignItems: 'center', gap: 2 }}>
      <View
        accessibilityRole="image"
        accessibilityLabel={PARTS_WORDS.at({ label, position: digitOf(position, positions) })}
      >
        <Look {...{ position, positions }} />
      </View>
      <Words size="caption" tone={isOther ? 'ochre' : 'second'}>
        {isOther ? PARTS_WORDS.to({ label, wanted: digitOf(wanted, positions) }) : label}
      </Words>
      {onTurn ? (
        <View style={{ flexDirection: 'row', gap: 4 }}>
          <Step
            label={label}
            sign="−"
            onPress={() => onTurn(0, (position + positions - 1) % positions)}
          />
          <Step label={label} sign="+" onPress={() => onTurn(0, (position + 1) % positions)} />
        </View>
      ) : null}
    </View>
  );
}

function Step({ label, sign, onPress }: { label: string; sign: '−' | '+'; onPress: () => void }) {
  const colours = useColours();
  return (
    <Pressable
      role="button"
      accessibilityLabel={PARTS_WORDS.oneUp({ label, sign: sign === '+' })}
      onPress={onPress}
      style={{
        width: TOUCH,
        height: TOUCH,
        alignItems: 'center',
        justifyContent: 'center',
        borderWidth: 1,
        borderColor: colours.line,
        borderRadius: 8,
        backgroundColor: colours.surface,
      }}
    >
      <Words size="device" tone="plum">
        {sign}
      </Words>
    </Pressable>
  );
}
