import { View } from 'react-native';
import Svg, { Circle, Line, Path, Text } from 'react-native-svg';
import type { TurnLine, TurnRow } from '@ipsonomo/language';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';
import { useColours } from '../theme';
import { AddressText } from './AddressText';
import { Words } from './Words';

const ROW = 88;
const THERE = 40;
const BACK = 108;
const WIDE = 136;
const TOP = 26;
const DOT = 8;
const STROKE = 4;
const CROSS = 9;
/** Where the line turns round, below the last row's dots. */
const TURN = 26;

const yOf = (row: number): number => TOP + row * ROW;
/** The text of the last row needs as much as the turn. */
const heightOf = (rows: number): number => yOf(rows - 1) + 2 * TURN;

/**
 * A route there and back: hosts one below the other, a line that goes down on the left, turns round at the target and
 * comes back up on the right. Where it ends stands a cross; what is not reached is dotted.
 */
export function ThereAndBackLine({ line }: { readonly line: TurnLine }) {
  const { rows } = line;
  return (
    <View style={{ minHeight: heightOf(rows.length) }} role="img" aria-label={labelOf(line)}>
      <Drawing line={line} />
      {rows.map((row, at) => (
        <RowText key={row.id} row={row} top={yOf(at) - 18} />
      ))}
    </View>
  );
}

const labelOf = ({ rows, end }: TurnLine): string => {
  const titles = rows.map(({ title }) => title).join(', ');
  return end
    ? PARTS_WORDS.itEndsAt({ titles, direction: end.direction, title: rows[end.row]?.title ?? '' })
    : titles;
};

function Drawing({ line }: { readonly line: TurnLine }) {
  const colours = useColours();
  const { rows, end } = line;
  const last = rows.length - 1;
  const height = heightOf(rows.length);
  const [downTo, upTo] = [
    end?.direction === 'there' ? end.row : last,
    end?.direction === 'back' ? end.row : 0,
  ];
  const reachesTarget = end?.direction !== 'there';
  const ink = { stroke: colours.ink, strokeWidth: STROKE };
  const dotted = { stroke: colours.brick, strokeWidth: STROKE, strokeDasharray: '2 8' };
  const turnY = yOf(last);
  const middle = (THERE + BACK) / 2;
  return (
    <Svg width={WIDE} height={height} style={{ position: 'absolute', left: 0, top: 0 }}>
      {last > 0 ? (
        <>
          <Line x1={THERE} y1={yOf(0)} x2={THERE} y2={yOf(downTo)} {...ink} />
          {reachesTarget ? (
            <Path
              d={`M ${THERE} ${turnY} V ${turnY + 6} Q ${THERE} ${turnY + TURN} ${middle} ${turnY + TURN} Q ${BACK} ${turnY + TURN} ${BACK} ${turnY + 6} V ${turnY}`}
              fill="none"
              {...ink}
            />
          ) : (
            <Line x1={THERE} y1={yOf(downTo)} x2={THERE} y2={turnY} {...dotted} />
          )}
          {reachesTarget ? (
            <>
              <Line x1={BACK} y1={turnY} x2={BACK} y2={yOf(upTo)} {...ink} />
              {upTo > 0 ? (
                <Line x1={BACK} y1={yOf(upTo) - CROSS} x2={BACK} y2={yOf(0)} {...dotted} />
              ) : null}
            </>
          ) : null}
        </>
      ) : null}
      {rows.map((row, at) => (
        <Dots key={row.id} row={row} at={at} line={line} />
      ))}
      {end ? (
        <Cross
          x={end.direction === 'there' ? THERE : BACK}
          y={yOf(end.row) + (end.direction === 'there' ? CROSS * 2.6 : -CROSS * 2.6)}
        />
      ) : null}
      <Text x={14} y={yOf(0) + 34} fontSize={13} fill={colours.second}>
        ↓
      </Text>
      {reachesTarget ? (
        <Text x={BACK + 10} y={yOf(0) + 34} fontSize={13} fill={colours.second}>
          ↑
        </Text>
      ) : null}
    </Svg>
  );
}

function Dots({
  row,
  at,
  line,
}: {
  readonly row: TurnRow;
  readonly at: number;
  readonly line: TurnLine;
}) {
  const colours = useColours();
  const { end } = line;
  const y = yOf(at);
  const isThere = row.there && (end?.direction !== 'there' || at <= end.row);
  const isBack = row.back && end?.direction !== 'there' && (end === undefined || at >= end.row);
  return (
    <>
      {isThere ? <Circle cx={THERE} cy={y} r={DOT} fill={colours.ink} /> : null}
      {isBack ? <Circle cx={BACK} cy={y} r={DOT} fill={colours.ink} /> : null}
    </>
  );
}

function Cross({ x, y }: { readonly x: number; readonly y: number }) {
  const colours = useColours();
  const stroke = { stroke: colours.brick, strokeWidth: STROKE };
  return (
    <>
      <Line x1={x - CROSS} y1={y - CROSS} x2={x + CROSS} y2={y + CROSS} {...stroke} />
      <Line x1={x - CROSS} y1={y + CROSS} x2={x + CROSS} y2={y - CROSS} {...stroke} />
    </>
  );
}

function RowText({ row, top }: { readonly row: TurnRow; readonly top: number }) {
  return (
    <View style={{ position: 'absolute', left: WIDE + 8, right: 0, top }}>
      <Words size="strong" lines={1}>
        {row.title}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 12 }}>
        {row.addresses.map(({ address, length }) => (
          <AddressText key={address} address={address} length={length} size="small" still />
        ))}
      </View>
      {row.says === '' ? null : (
        <Words size="caption" tone="second">
          {row.says}
        </Words>
      )}
    </View>
  );
}
