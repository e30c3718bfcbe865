import { useState } from 'react';
import { View, type LayoutChangeEvent } from 'react-native';
import Svg, { Defs, Line, Path, Pattern, Rect } from 'react-native-svg';
import { ROLE_WORDS } from '@ipsonomo/language';
import { sizeOf, type Ipv4 } from '@ipsonomo/core/net';
import type { Subnet } from '@ipsonomo/core/plan';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { useColours } from '../theme';
import { Words } from './Words';

interface Props {
  readonly subnet: Subnet;
  readonly given: readonly Ipv4[];
  /** Addresses that something speaks against. */
  readonly clashes: ReadonlySet<Ipv4>;
}

const HEIGHT = 18;

/**
 * The whole subnet as one strip: bands faint, what is given dark, pool and held hatched, a clash
 * taller and in brick.
 */
export function SubnetRuler({ subnet, given, clashes }: Props) {
  const colours = useColours();
  const [width, setWidth] = useState(0);
  const size = sizeOf(subnet.prefix);
  const at = (address: number) => ((address - subnet.prefix.network) / size) * width;
  const step = Math.max(1.5, width / size);
  const measure = (event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width);
  const label = PARTS_WORDS.ofAddressesGiven({ given: given.length, value: Math.max(1, size - 2) });
  return (
    <View onLayout={measure} accessibilityRole="image" accessibilityLabel={label}>
      {width > 0 ? (
        <Svg width={width} height={HEIGHT + 8}>
          <Defs>
            <Pattern id={`hatch-${subnet.id}`} width={6} height={6} patternUnits="userSpaceOnUse">
              <Path d="M0 6 L6 0" stroke={colours.second} strokeWidth={1} />
            </Pattern>
          </Defs>
          <Rect
            x={0.5}
            y={4.5}
            width={width - 1}
            height={HEIGHT}
            fill={colours.surface}
            stroke={colours.ink}
          />
          {subnet.bands.map((band) => {
            const reserved =
              band.role === 'pool' || band.role === 'held' || band.role === 'laptops';
            const fill = reserved ? `url(#hatch-${subnet.id})` : colours.idle;
            const wide = at(band.last + 1) - at(band.first);
            return (
              <Rect
                key={band.first}
                x={at(band.first)}
                y={5}
                width={wide}
                height={HEIGHT - 1}
                fill={fill}
              />
            );
          })}
          {subnet.gateway === undefined ? null : (
            <Line
              x1={at(subnet.gateway) + step / 2}
              x2={at(subnet.gateway) + step / 2}
              y1={1}
              y2={HEIGHT + 8}
              stroke={colours.plum}
              strokeWidth={2}
            />
          )}
          {/* One path for all: of a plant of thousands there are many rulers on a phone. */}
          <Path
            d={marksOf(
              given.filter((address) => !clashes.has(address)).map(at),
              ...([5, step, HEIGHT - 1] as const),
            )}
            fill={colours.ink}
          />
          <Path
            d={marksOf(
              given.filter((address) => clashes.has(address)).map(at),
              ...([0, Math.max(3, step), HEIGHT + 8] as const),
            )}
            fill={colours.brick}
          />
        </Svg>
      ) : (
        <View style={{ height: HEIGHT + 8 }} />
      )}
      <Labels subnet={subnet} width={width} at={at} />
    </View>
  );
}

/** A box at each of these places. */
const marksOf = (places: readonly number[], y: number, width: number, height: number): string =>
  places.map((x) => `M${x.toFixed(2)} ${y}h${width}v${height}h${-width}z`).join('');

interface LabelProps {
  readonly subnet: Subnet;
  readonly width: number;
  readonly at: (address: number) => number;
}

const LABEL_ROOM = 92;

/** Names of the bands that have room for one, under their beginning. */
function Labels({ subnet, width, at }: LabelProps) {
  // As high before its width is known as afterwards: what stands below must not move.
  if (width === 0) return subnet.bands.length > 0 ? <View style={{ height: 18 }} /> : null;
  const shown = labelsOf(subnet, width, at);
  if (shown.length === 0) return null;
  return (
    <View style={{ height: 18 }}>
      {shown.map(({ x, text }) => (
        <View key={text} style={{ position: 'absolute', left: x }}>
          <Words size="caption" tone="second" lines={1}>
            {text}
          </Words>
        </View>
      ))}
    </View>
  );
}

function labelsOf(subnet: Subnet, width: number, at: LabelProps['at']) {
  const shown: { readonly x: number; readonly text: string }[] = [];
  for (const band of subnet.bands) {
    const x = at(band.first);
    const before = shown.at(-1);
    if ((before && x < before.x + LABEL_ROOM) || x + LABEL_ROOM > width) continue;
    shown.push({ x, text: `${ROLE_WORDS[band.role]} .${band.first & 255}` });
  }
  return shown;
}
