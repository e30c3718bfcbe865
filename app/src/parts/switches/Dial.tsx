import Svg, { Circle, G, Line, Text } from 'react-native-svg';
import { FIGURES, useColours } from '../../theme';
import { digitOf } from './digit';

const SIZE = 100;
const MIDDLE = SIZE / 2;
const KNOB = 28;
const PRINT = 42;

/** A rotary switch: its pointer on the position, the position printed heavy. */
export function Dial({
  position,
  positions,
}: {
  readonly position: number;
  readonly positions: number;
}) {
  const colours = useColours();
  const pointAt = (one: number, radius: number) => {
    const angle = (one / positions) * 2 * Math.PI;
    return { x: MIDDLE + Math.sin(angle) * radius, y: MIDDLE - Math.cos(angle) * radius };
  };
  const tip = pointAt(position, KNOB - 3);
  const tail = pointAt(position + positions / 2, KNOB - 9);
  return (
    <Svg width={SIZE} height={SIZE} viewBox={`0 0 ${SIZE} ${SIZE}`}>
      <Circle cx={MIDDLE} cy={MIDDLE} r={KNOB} fill={colours.ink} />
      <Line
        {...{ x1: tail.x, y1: tail.y, x2: tip.x, y2: tip.y }}
        stroke={colours.ground}
        strokeWidth={4}
        strokeLinecap="round"
      />
      <Circle cx={tip.x} cy={tip.y} r={4.5} fill={colours.ochreGround} stroke={colours.ink} />
      {Array.from({ length: positions }, (_, one) => {
        const at = pointAt(one, PRINT);
        const isIt = one === position;
        return (
          <G key={one}>
            <Text
              x={at.x}
              y={at.y + (isIt ? 5.5 : 4)}
              fill={isIt ? colours.ink : colours.second}
              fontFamily={FIGURES}
              fontSize={isIt ? 16 : positions > 16 ? 8 : 11}
              fontWeight={isIt ? '700' : '400'}
              textAnchor="middle"
            >
              {digitOf(one, positions)}
            </Text>
          </G>
        );
      })}
    </Svg>
  );
}
