import { Text, View } from 'react-native';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { FIGURES, useColours } from '../theme';
import { LinkTo } from './LinkTo';
import { Words } from './Words';

export type Place = 'plan' | 'assign' | 'prove' | 'hand-over';

export interface PlaceEntry {
  readonly place: Place;
  readonly label: string;
  /** How much is left to do there. */
  readonly left: number;
}

interface Props {
  readonly places: readonly PlaceEntry[];
  readonly current: Place | undefined;
  readonly wide: boolean;
  readonly pathOf: (place: Place) => string;
}

/** The four places, each with how much is left there: a bar on a phone, a rail where it is wide. */
export function Places({ places, current, wide, pathOf }: Props) {
  const colours = useColours();
  const edge = wide
    ? { borderRightWidth: 1, borderRightColor: colours.line, width: 96, paddingTop: 8 }
    : { borderTopWidth: 1, borderTopColor: colours.line, flexDirection: 'row' as const };
  return (
    <View role="navigation" style={{ backgroundColor: colours.surface, ...edge }}>
      {places.map(({ place, label, left }) => {
        const here = place === current;
        const tone = here ? 'plum' : 'ink';
        return (
          <LinkTo
            key={place}
            href={pathOf(place)}
            accessibilityLabel={PARTS_WORDS.left({ label, left })}
            aria-current={here ? 'page' : undefined}
            style={{
              flex: wide ? undefined : 1,
              minHeight: wide ? 80 : 64,
              alignItems: 'center',
              justifyContent: 'center',
              // No border in place of one that is not seen: where a browser has its own colours, it sees all.
              ...(wide ? { paddingRight: here ? 4 : 0 } : { paddingBottom: here ? 3 : 0 }),
              borderTopWidth: here && !wide ? 3 : 0,
              borderTopColor: colours.plum,
              borderLeftWidth: here && wide ? 4 : 0,
              borderLeftColor: colours.plum,
            }}
          >
            <Text
              style={{
                fontFamily: FIGURES,
                fontSize: 21,
                lineHeight: 26,
                fontWeight: '700',
                color: colours[tone],
              }}
            >
              {left > 0 ? left : '–'}
            </Text>
            <Words size="caption" tone={here ? 'plum' : 'second'}>
              {label}
            </Words>
          </LinkTo>
        );
      })}
    </View>
  );
}
