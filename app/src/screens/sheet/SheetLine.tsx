import { memo } from 'react';
import { Text, View, type TextStyle, type ViewStyle } from 'react-native';
import {
  findSubnet,
  formatIpv4,
  type NotchView,
  type Plan,
  type Severity,
  type SheetRow,
} from '@ipsonomo/core';
import { partsOfAddress, StageNotches } from '../../parts';
import { FIGURES, TYPE, WORDS, type Colours } from '../../theme';
import { GRID_COLUMNS, GRID_WIDTH, PINNED, type GridColumn } from './grid-columns';

export const LINE_HEIGHT = 36;

interface Props {
  readonly row: SheetRow;
  readonly index: number;
  readonly top: number;
  readonly plan: Plan;
  readonly colours: Colours;
  readonly notches: readonly NotchView[];
  readonly mark: Severity | undefined;
  /** What speaks against single cells: `column:severity`, joined, so that it compares by value. */
  readonly marked: string;
  /** First and last chosen column, and the cursor's: `left-right-at`; empty where none is. */
  readonly chosen: string;
}

const SIGNS: Readonly<Record<Severity, string>> = { wrong: '×', doubtful: '!', hint: '·' };

/** One line of the sheet; drawn again only when it is another. */
export const SheetLine = memo(function SheetLine(props: Props) {
  const { row, index, top, plan, colours, notches, mark, marked, chosen } = props;
  const marks = new Map(marked.split(',').map((one) => one.split(':') as [string, Severity]));
  const [left = NaN, right = NaN, at = NaN] = chosen === '' ? [] : chosen.split('-').map(Number);
  const line: ViewStyle = {
    position: 'absolute',
    left: 0,
    top,
    height: LINE_HEIGHT,
    width: GRID_WIDTH,
    flexDirection: 'row',
    borderBottomWidth: 1,
    borderBottomColor: colours.line,
  };
  return (
    <View role="row" aria-rowindex={index + 2} style={line}>
      {GRID_COLUMNS.map((column, place) => {
        const severity = marks.get(column.id);
        const isChosen = place >= left && place <= right;
        const style = cellStyle(column, colours, severity, isChosen, place === at);
        if (column.id === 'stage')
          return (
            <View
              key="stage"
              style={[style as ViewStyle, { justifyContent: 'center' }]}
              {...cellAt(index, place)}
            >
              <StageNotches notches={notches} size={13} />
            </View>
          );
        return (
          <Text key={column.id} numberOfLines={1} style={style} {...cellAt(index, place)}>
            {column.id === 'title' && mark ? (
              <Text
                style={{
                  color: mark === 'wrong' ? colours.brick : colours.ochre,
                  fontWeight: '700',
                }}
              >
                {SIGNS[mark]}{' '}
              </Text>
            ) : null}
            {column.id === 'address' ? (
              <AddressParts row={row} plan={plan} colours={colours} />
            ) : (
              (column.column?.text(row, plan) ?? '')
            )}
          </Text>
        );
      })}
    </View>
  );
});

/** What the subnet fixes light, what is this device's heavy. */
function AddressParts({ row, plan, colours }: Pick<Props, 'row' | 'plan' | 'colours'>) {
  if (!row.at) return null;
  const length = findSubnet(plan, row.at.subnetId)?.prefix.length ?? 24;
  const [light, heavy] = partsOfAddress(formatIpv4(row.at.address), length);
  return (
    <>
      <Text style={{ color: colours.second }}>{light}</Text>
      <Text style={{ fontWeight: '700' }}>{heavy}</Text>
    </>
  );
}

/** What the pointer finds out about a cell, and what it is to a reader of screens. */
const cellAt = (row: number, column: number): object => ({
  role: 'gridcell',
  dataSet: { row: String(row), column: String(column) },
});

function cellStyle(
  { id, width, column }: GridColumn,
  colours: Colours,
  severity: Severity | undefined,
  isChosen: boolean,
  isCursor: boolean,
): TextStyle {
  const ground =
    severity === 'wrong'
      ? colours.brickGround
      : severity === 'doubtful'
        ? colours.ochreGround
        : isChosen
          ? colours.idle
          : id === PINNED
            ? colours.ground
            : 'transparent';
  const pinned = id === PINNED ? ({ position: 'sticky', left: 0, zIndex: 1 } as object) : {};
  return {
    width,
    height: LINE_HEIGHT - 1,
    lineHeight: LINE_HEIGHT - 1,
    paddingHorizontal: 8,
    fontFamily: column?.figures ? FIGURES : WORDS,
    fontSize: TYPE.second.fontSize,
    fontWeight: id === PINNED ? '600' : '400',
    color: id === PINNED || column?.figures ? colours.ink : colours.second,
    backgroundColor: ground,
    outlineWidth: isCursor ? 2 : 0,
    outlineStyle: 'solid',
    outlineOffset: -2,
    outlineColor: colours.plum,
    ...pinned,
  };
}
