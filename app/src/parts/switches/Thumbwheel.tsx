import Svg, { Line, Rect, Text } from 'react-native-svg';
import { FIGURES, useColours } from '../../theme';
import { digitOf } from './digit';

const WIDTH = 60;
const HEIGHT = 100;

/** A wheel behind a window: its digit, with the ones before and after half hidden. */
export function Thumbwheel({
  position,
  positions,
}: {
  readonly position: number;
  readonly positions: number;
}) {
  const colours = useColours();
  const digit = (one: number, y: number, size: number, fill: string) => (
    <Text
      x={WIDTH / 2}
      y={y}
      fill={fill}
      fontFamily={FIGURES}
      fontSize={size}
      fontWeight="700"
      textAnchor="middle"
    >
      {digitOf((one + positions) % positions, positions)}
    </Text>
  );
  return (
    <Svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`}>
      <Rect x={4} y={2} width={52} height={96} rx={6} fill={colours.ink} />
      <Rect x={10} y={28} width={40} height={44} rx={3} fill={colours.surface} />
      {digit(position, 61, 32, colours.ink)}
      {digit(position - 1, 22, 14, colours.ground)}
      {digit(position + 1, 91, 14, colours.ground)}
      {[12, 88].map((y) => (
        <Line
          key={y}
          x1={14}
          x2={46}
          y1={y > 50 ? 78 : 26}
          y2={y > 50 ? 78 : 26}
          stroke={colours.second}
        />
      ))}
    </Svg>
  );
}
