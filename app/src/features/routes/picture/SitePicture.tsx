import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import Svg, { Circle, G, Line, Path, Polygon, Polyline, Rect, Text } from 'react-native-svg';
import { cutInTheMiddle } from '@ipsonomo/core/names';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  boxesOf,
  cornersOf,
  linesOf,
  within,
  type Box,
  type DrawnRoute,
  type FoldedLane,
  type PlacedPicture,
} from '@ipsonomo/core/picture';
import type { ProofKind } from '@ipsonomo/core/proof';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { JOINER_WORDS, laneTitle, PICTURE_WORDS } from '@ipsonomo/language/screens/picture';
import { FIGURES, useColours, WORDS } from '../../../theme';
import { useSeenBox } from './use-seen-box';

interface Props {
  /** Where it is found in the document, to be saved: then all of it is drawn, seen or not. */
  readonly wholeAs?: string;
  readonly picture: PlacedPicture;
  readonly marks: ReadonlyMap<string, ProofKind>;
  readonly route: DrawnRoute | undefined;
  /** The two that are chosen, as far as they are. */
  readonly chosen: readonly string[];
  readonly onPress: (interfaceId: string) => void;
  /** Opens or folds a lane of a large site. */
  readonly onFold: (subnetId: string) => void;
  /** Lanes that were opened, and can be folded again. */
  readonly open: ReadonlySet<string>;
}

/** The site as it is connected, with a way through it where two are chosen: there drawn through, back dashed. */
export function SitePicture(props: Props) {
  const { picture, marks, route, chosen, onPress, onFold, open, wholeAs } = props;
  const colours = useColours();
  const [frame, setFrame] = useState<HTMLElement | null>(null);
  const seen = useSeenBox(frame);
  const { width, height } = picture;
  const { lanes, joiners } = seen && wholeAs === undefined ? within(picture, seen) : picture;
  return (
    <ScrollView horizontal style={{ maxWidth: '100%' }}>
      <View ref={setFrame as never} style={{ width, height }}>
        <Svg
          nativeID={wholeAs}
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          accessibilityRole="image"
          accessibilityLabel={COMMON_WORDS.theSiteAsItIsConnected}
        >
          {linesOf(picture).map(({ key, from, to }) => (
            <Line
              key={key}
              {...{ x1: from.x, y1: from.y, x2: to.x, y2: to.y }}
              stroke={colours.second}
              strokeWidth={2}
            />
          ))}
          {lanes.map(({ lane, box, devices, rest }) => (
            <G key={lane.subnetId}>
              <Rect
                {...box}
                rx={6}
                fill={colours.surface}
                stroke={colours.line}
                strokeWidth={1.5}
              />
              <Text
                x={box.x + 12}
                y={box.y + 22}
                fill={colours.ink}
                fontFamily={WORDS}
                fontSize={15}
                fontWeight="700"
              >
                {laneTitle(lane)}
              </Text>
              {devices.map(({ device, box: chip }) => (
                <Chip
                  key={device.interfaceId}
                  title={device.title}
                  address={formatIpv4(device.address)}
                  box={chip}
                  mark={marks.get(device.interfaceId) ?? 'not-asked'}
                  isChosen={chosen.includes(device.interfaceId)}
                  onPress={() => onPress(device.interfaceId)}
                />
              ))}
              {rest ? (
                <Rest {...{ box: rest, marks }} lane={lane} onPress={() => onFold(lane.subnetId)} />
              ) : null}
              {open.has(lane.subnetId) ? (
                <Text
                  x={box.x + box.width - 12}
                  y={box.y + 22}
                  fill={colours.second}
                  fontFamily={WORDS}
                  fontSize={13}
                  textAnchor="end"
                  textDecoration="underline"
                  onPress={() => onFold(lane.subnetId)}
                >
                  {PICTURE_WORDS.fold}
                </Text>
              ) : null}
            </G>
          ))}
          {joiners.map((one) => (
            <Joining key={one.joiner.id} {...one} />
          ))}
          {route ? <Way {...{ picture, route }} /> : null}
        </Svg>
      </View>
    </ScrollView>
  );
}

function Joining({ joiner, box }: PlacedPicture['joiners'][number]) {
  const colours = useColours();
  return (
    <G>
      <Rect {...box} rx={26} fill={colours.ground} stroke={colours.ink} strokeWidth={2} />
      <Text
        x={box.x + box.width / 2}
        y={box.y + 26}
        fill={colours.ink}
        fontFamily={WORDS}
        fontSize={14}
        fontWeight="700"
        textAnchor="middle"
      >
        {cutInTheMiddle(joiner.title, 20)}
      </Text>
      <Text
        x={box.x + box.width / 2}
        y={box.y + 45}
        fill={colours.second}
        fontFamily={WORDS}
        fontSize={12}
        textAnchor="middle"
      >
        {JOINER_WORDS[joiner.kind]}
      </Text>
    </G>
  );
}

interface ChipProps {
  readonly title: string;
  readonly address: string;
  readonly box: Box;
  readonly mark: ProofKind;
  readonly isChosen: boolean;
  readonly onPress: () => void;
}

function Chip({ title, address, box, mark, isChosen, onPress }: ChipProps) {
  const colours = useColours();
  return (
    <G onPress={onPress}>
      <Rect
        {...box}
        rx={4}
        fill={colours.ground}
        stroke={isChosen ? colours.plum : colours.line}
        strokeWidth={isChosen ? 3 : 1}
      />
      <G transform={`translate(${box.x + 8} ${box.y + 14})`}>
        <Mark mark={mark} />
      </G>
      <Text
        x={box.x + 30}
        y={box.y + 18}
        fill={colours.ink}
        fontFamily={WORDS}
        fontSize={13}
        fontWeight="600"
      >
        {cutInTheMiddle(title, 20)}
      </Text>
      <Text x={box.x + 30} y={box.y + 35} fill={colours.second} fontSize={12} fontFamily={FIGURES}>
        {address}
      </Text>
    </G>
  );
}

interface RestProps {
  readonly lane: FoldedLane;
  readonly box: Box;
  readonly marks: ReadonlyMap<string, ProofKind>;
  readonly onPress: () => void;
}

/** What counts most stands first. */
const KINDS: readonly ProofKind[] = [
  ...(['contradicted', 'silent', 'stale', 'accepted', 'not-asked', 'proven'] as const),
];
const MOST_KINDS = 3;

/** The devices of a folded lane: how many, and how many of each outcome. */
function Rest({ lane, box, marks, onPress }: RestProps) {
  const colours = useColours();
  const { folded = [] } = lane;
  const counts = new Map<ProofKind, number>();
  for (const { interfaceId } of folded) {
    const mark = marks.get(interfaceId) ?? 'not-asked';
    counts.set(mark, (counts.get(mark) ?? 0) + 1);
  }
  const told = KINDS.filter((kind) => counts.has(kind)).slice(0, MOST_KINDS);
  return (
    <G onPress={onPress}>
      <Rect {...box} rx={4} fill={colours.ground} stroke={colours.second} strokeDasharray="4 3" />
      <Text
        x={box.x + 8}
        y={box.y + 18}
        fill={colours.ink}
        fontFamily={WORDS}
        fontSize={13}
        fontWeight="600"
      >
        {lane.devices.length > 0
          ? PICTURE_WORDS.showOthers({ folded: folded.length })
          : PICTURE_WORDS.showDevices({ folded: folded.length })}
      </Text>
      {told.map((kind, at) => (
        <G key={kind} transform={`translate(${box.x + 8 + at * 52} ${box.y + 26})`}>
          <G transform="scale(0.8)">
            <Mark mark={kind} />
          </G>
          <Text x={16} y={11} fill={colours.second} fontFamily={FIGURES} fontSize={12}>
            {counts.get(kind)}
          </Text>
        </G>
      ))}
    </G>
  );
}

/** Proven, otherwise, silent, too old, accepted, not asked: each has a shape of its own. */
export function Mark({ mark }: { readonly mark: ProofKind }) {
  const colours = useColours();
  switch (mark) {
    case 'proven':
      return <Polygon points="8,0 15,4 15,12 8,16 1,12 1,4" fill={colours.moss} />;
    case 'contradicted':
      return (
        <G>
          <Rect x={1} y={1} width={14} height={14} fill={colours.brick} />
          <Path d="M4 4 L12 12 M12 4 L4 12" stroke={colours.surface} strokeWidth={2} />
        </G>
      );
    case 'silent':
      return (
        <G>
          <Circle cx={8} cy={8} r={6.5} fill="none" stroke={colours.brick} strokeWidth={2} />
          <Line x1={3} y1={8} x2={13} y2={8} stroke={colours.brick} strokeWidth={2} />
        </G>
      );
    case 'stale':
      return (
        <Polygon
          points="8,0 15,4 15,12 8,16 1,12 1,4"
          fill="none"
          stroke={colours.ochre}
          strokeWidth={2}
        />
      );
    case 'accepted':
      return (
        <Rect
          x={1}
          y={1}
          width={14}
          height={14}
          fill="none"
          stroke={colours.ochre}
          strokeWidth={2}
        />
      );
    case 'not-asked':
      return <Circle cx={8} cy={8} r={6} fill="none" stroke={colours.second} strokeWidth={1.5} />;
  }
}

function Way({ picture, route }: { readonly picture: PlacedPicture; readonly route: DrawnRoute }) {
  const colours = useColours();
  const end = route.end === undefined ? undefined : boxesOf(picture).get(route.end);
  const stroke = { fill: 'none', stroke: colours.plum, strokeWidth: 4, strokeOpacity: 0.75 };
  return (
    <G pointerEvents="none">
      <Polyline points={cornersOf(picture, route.there, -4)} {...stroke} />
      <Polyline points={cornersOf(picture, route.back, 5)} {...stroke} strokeDasharray="9 6" />
      {end ? (
        <Path
          d={`M${end.x + end.width - 26} ${end.y + end.height / 2 - 9} l18 18 m0 -18 l-18 18`}
          stroke={colours.brick}
          strokeWidth={5}
        />
      ) : null}
    </G>
  );
}
