import { Pressable, Text, View } from 'react-native';
import { FIGURES, useColours } from '../theme';
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
  readonly onGo: (place: Place) => void;
}

/** The four places, each with how much is left there: a bar on a phone, a rail where it is wide. */
export function Places({ places, current, wide, onGo }: Props) {
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
          <Pressable
            key={place}
            onPress={() => onGo(place)}
            accessibilityRole="link"
            accessibilityLabel={`${label}, ${left} left`}
            aria-current={here ? 'page' : undefined}
            style={{
              flex: wide ? undefined : 1,
              minHeight: wide ? 80 : 64,
              alignItems: 'center',
              justifyContent: 'center',
              borderTopWidth: wide ? 0 : 3,
              borderTopColor: here ? colours.plum : 'transparent',
              borderLeftWidth: wide ? 4 : 0,
              borderLeftColor: here ? colours.plum : 'transparent',
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
          </Pressable>
        );
      })}
    </View>
  );
}
