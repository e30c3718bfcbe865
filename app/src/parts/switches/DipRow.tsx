import { Pressable, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { useColours } from '../../theme';
import type { ElementProps } from './element';
import { spacePresses } from '../keys';
import { Words } from '../Words';

/** In a row that is as wide as a phone. */
const MOST_IN_ROW = 8;

/** A row of DIP switches, up for on, with what each is worth printed below it. */
export function DipRow({ element, positions, wanted, onTurn }: ElementProps<'dip'>) {
  const { label, weights } = element;
  const rows = Array.from({ length: Math.ceil(weights.length / MOST_IN_ROW) }, (_, row) =>
    weights.slice(row * MOST_IN_ROW, (row + 1) * MOST_IN_ROW).map((weight, at) => ({
      ...{ weight, at: row * MOST_IN_ROW + at },
    })),
  );
  return (
    <View style={{ alignItems: 'center', gap: 4 }}>
      {rows.map((row, index) => (
        <View key={index} style={{ flexDirection: 'row', gap: 2 }}>
          {row.map(({ weight, at }) => (
            <Switch
              key={at}
              label={`${label} ${weight}`}
              {...{ weight }}
              isOn={positions[at] === 1}
              isWanted={wanted?.[at] === undefined ? undefined : wanted[at] === 1}
              onPress={onTurn && (() => onTurn(at, positions[at] === 1 ? 0 : 1))}
            />
          ))}
        </View>
      ))}
      <Words size="caption" tone="second">
        {PARTS_WORDS.upIsOn({ label })}
      </Words>
    </View>
  );
}

interface SwitchProps {
  readonly label: string;
  readonly weight: number;
  readonly isOn: boolean;
  readonly isWanted: boolean | undefined;
  readonly onPress: (() => void) | undefined;
}

const WIDTH = 36;

function Switch({ label, weight, isOn, isWanted, onPress }: SwitchProps) {
  const colours = useColours();
  const isOther = isWanted !== undefined && isWanted !== isOn;
  const drawing = (
    <>
      <Svg width={WIDTH} height={64} viewBox="0 0 36 64">
        <Rect x={6} y={4} width={24} height={56} rx={4} fill={colours.ink} />
        <Rect x={9} y={isOn ? 7 : 33} width={18} height={24} rx={3} fill={colours.surface} />
      </Svg>
      <Words size={isOn ? 'strong' : 'caption'} tone={isOn ? 'ink' : 'second'}>
        {weight}
      </Words>
      <Words size="caption" tone="ochre">
        {isOther ? (isWanted ? PARTS_WORDS.toOn : PARTS_WORDS.toOff) : ' '}
      </Words>
    </>
  );
  const style = { width: WIDTH, alignItems: 'center' } as const;
  if (!onPress)
    return (
      <View
        accessibilityRole="image"
        accessibilityLabel={PARTS_WORDS.on({ label, isOn })}
        style={style}
      >
        {drawing}
      </View>
    );
  return (
    <Pressable
      role="switch"
      aria-checked={isOn}
      accessibilityLabel={label}
      onPress={onPress}
      {...spacePresses(onPress)}
      style={style}
    >
      {drawing}
    </Pressable>
  );
}
