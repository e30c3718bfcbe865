import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { NotchView } from '@ipsonomo/core/api';
import { STAGE_WORDS } from '@ipsonomo/language';
import type { Stage } from '@ipsonomo/core/plan';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { useColours } from '../theme';

interface Props {
  readonly notches: readonly NotchView[];
  readonly size?: number;
}

/** Each stage has a shape of its own, in a field of 16 × 16; its path goes on from the field's left upper corner. */
const SHAPES: Readonly<Record<Stage, string>> = {
  planned: 'm2.5 8a5.5 5.5 0 1 0 11 0a5.5 5.5 0 1 0 -11 0z',
  heard: 'm5 2.5a5.5 5.5 0 0 1 0 11z',
  given: 'm3 2.5l10.5 5.5l-10.5 5.5z',
  pinned: 'm2.8 2.8h10.4v10.4h-10.4z',
  proven: 'm8 1.8l5.5 3.1v6.2l-5.5 3.1l-5.5 -3.1v-6.2z',
};
/** Read off the device, and not seen: a dot in the shape. */
const DOT = 'm5 8a2 2 0 1 0 4 0a2 2 0 1 0 -4 0z';
const STROKE = 'm1 15l14 -14';

/** Places of a stage whose state is one of these, as one path: a page has hundreds of them. */
const pathOf = (
  notches: readonly NotchView[],
  states: readonly NotchView['state'][],
  shape: (stage: Stage) => string,
): string =>
  notches
    .map(({ stage, state }, at) =>
      states.includes(state) ? `M${at * (FIELD + GAP)} 0${shape(stage)}` : '',
    )
    .join('');

/** The five stages, filling left to right; a broken one is struck through. */
export function StageNotches({ notches, size = 15 }: Props) {
  const colours = useColours();
  const all = notches.every((notch) => notch.state === 'reached');
  const full = all ? colours.moss : colours.ink;
  const width = notches.length * (FIELD + GAP) - GAP;
  const of = (...states: NotchView['state'][]) => pathOf(notches, states, (one) => SHAPES[one]);
  const paths = [
    { d: of('reached'), fill: full, stroke: full },
    { d: of('open', 'read'), fill: 'none', stroke: colours.second },
    { d: of('broken'), fill: 'none', stroke: colours.brick },
    { d: pathOf(notches, ['read'], () => DOT), fill: colours.second, stroke: 'none' },
    { d: pathOf(notches, ['broken'], () => STROKE), stroke: colours.brick, strokeWidth: 2.4 },
  ];
  return (
    <View accessibilityRole="image" accessibilityLabel={stageWords(notches)}>
      <Svg width={(width * size) / FIELD} height={size} viewBox={`0 0 ${width} ${FIELD}`}>
        {paths.map((path, at) => (path.d ? <Path key={at} strokeWidth={1.6} {...path} /> : null))}
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
  const words = [PARTS_WORDS.stage({ stage: STAGE_WORDS[reached?.stage ?? 'planned'] })];
  for (const { stage, state } of notches)
    if (state === 'read')
      words.push(PARTS_WORDS.readOffTheDeviceNotSeen({ stage: STAGE_WORDS[stage] }));
  for (const notch of broken)
    words.push(PARTS_WORDS.contradicted({ stage: STAGE_WORDS[notch.stage] }));
  return words.join(', ');
}
