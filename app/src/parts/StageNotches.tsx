import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Polygon, Rect } from 'react-native-svg';
import { STAGE_WORDS, type NotchView, type Stage } from '@ipsonomo/core';
import { useColours } from '../theme';

interface Props {
  readonly notches: readonly NotchView[];
  readonly size?: number;
}

type Shape = (fill: string, stroke: string) => React.JSX.Element;

/** Each stage has a shape of its own, in a field of 16 × 16. */
const SHAPES: Readonly<Record<Stage, Shape>> = {
  planned: (fill, stroke) => (
    <Circle cx={8} cy={8} r={5.5} fill={fill} stroke={stroke} strokeWidth={1.6} />
  ),
  heard: (fill, stroke) => (
    <Path d="M5 2.5 A5.5 5.5 0 0 1 5 13.5 Z" fill={fill} stroke={stroke} strokeWidth={1.6} />
  ),
  given: (fill, stroke) => (
    <Polygon points="3,2.5 13.5,8 3,13.5" fill={fill} stroke={stroke} strokeWidth={1.6} />
  ),
  pinned: (fill, stroke) => (
    <Rect
      x={2.8}
      y={2.8}
      width={10.4}
      height={10.4}
      fill={fill}
      stroke={stroke}
      strokeWidth={1.6}
    />
  ),
  proven: (fill, stroke) => (
    <Polygon
      points="8,1.8 13.5,4.9 13.5,11.1 8,14.2 2.5,11.1 2.5,4.9"
      fill={fill}
      stroke={stroke}
      strokeWidth={1.6}
    />
  ),
};

/** The five stages, filling left to right; a broken one is struck through. */
export function StageNotches({ notches, size = 15 }: Props) {
  const colours = useColours();
  const all = notches.every((notch) => notch.state === 'reached');
  const full = all ? colours.moss : colours.ink;
  const width = notches.length * (FIELD + GAP) - GAP;
  return (
    <View accessibilityRole="image" accessibilityLabel={stageWords(notches)}>
      <Svg width={(width * size) / FIELD} height={size} viewBox={`0 0 ${width} ${FIELD}`}>
        {notches.map(({ stage, state }, index) => {
          const stroke =
            state === 'reached' ? full : state === 'broken' ? colours.brick : colours.second;
          return (
            <G key={stage} transform={`translate(${index * (FIELD + GAP)} 0)`}>
              {SHAPES[stage](state === 'reached' ? full : 'none', stroke)}
              {state === 'read' ? <Circle cx={7} cy={8} r={2} fill={colours.second} /> : null}
              {state === 'broken' ? (
                <Line x1={1} y1={15} x2={15} y2={1} stroke={colours.brick} strokeWidth={2.4} />
              ) : null}
            </G>
          );
        })}
      </Svg>
    </View>
  );
}

const FIELD = 16;
const GAP = 3.5;

/** How far it has come, and what contradicts. */
export function stageWords(notches: readonly NotchView[]): string {
  const reached = notches.filter((notch) => notch.state === 'reached').at(-1);
  const broken = notches.filter((notch) => notch.state === 'broken');
  const words = [`stage: ${STAGE_WORDS[reached?.stage ?? 'planned']}`];
  for (const { stage, state } of notches)
    if (state === 'read') words.push(`${STAGE_WORDS[stage]}: read off the device, not seen`);
  for (const notch of broken) words.push(`${STAGE_WORDS[notch.stage]}: contradicted`);
  return words.join(', ');
}
