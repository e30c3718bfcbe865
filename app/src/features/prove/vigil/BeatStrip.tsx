import { View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import type { Bucket } from '@ipsonomo/core/vigil';
import { useColours } from '../../../theme';

interface Props {
  readonly buckets: readonly Bucket[];
  /** How many there will be at the end. */
  readonly total: number;
  /** The delay at the upper edge, in milliseconds. */
  readonly most: number;
  readonly label: string;
}

const HEIGHT = 36;
const BAR = 4;
const LOST = 9;

/** Delay over time as bars that stand on a line; what was lost hangs below it, so it shows without colour. */
export function BeatStrip({ buckets, total, most, label }: Props) {
  const colours = useColours();
  const width = Math.max(total, buckets.length) * BAR;
  const base = HEIGHT - LOST - 2;
  return (
    <View accessibilityRole="image" accessibilityLabel={label}>
      <Svg
        width="100%"
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        preserveAspectRatio="none"
      >
        <Line x1={0} x2={width} y1={base} y2={base} stroke={colours.line} strokeWidth={1} />
        {buckets.map(({ asked, lost, slowest }, at) => {
          const tall = slowest === undefined ? 0 : Math.max(2, (base * slowest) / most);
          const deep = asked === 0 ? 0 : Math.ceil((LOST * lost) / asked);
          return [
            tall > 0 ? (
              <Rect
                key={`d${at}`}
                x={at * BAR}
                y={base - tall}
                width={BAR - 1}
                height={tall}
                fill={colours.moss}
              />
            ) : null,
            deep > 0 ? (
              <Rect
                key={`l${at}`}
                x={at * BAR}
                y={base + 2}
                width={BAR - 1}
                height={Math.max(4, deep)}
                fill={colours.brick}
              />
            ) : null,
          ];
        })}
      </Svg>
    </View>
  );
}
