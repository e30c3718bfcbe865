import { memo, type CSSProperties } from 'react';
import type { NotchView } from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import { findSubnet, type Plan } from '@ipsonomo/core/plan';
import type { SheetRow } from '@ipsonomo/core/sheet';
import type { Severity } from '@ipsonomo/core/snags';
import { partsOfAddress, StageNotches } from '../../parts';
import { FIGURES, TYPE, WORDS, type Colours } from '../../theme';
import { SIGNS } from '../snags';
import { GRID_COLUMNS, GRID_WIDTH, PINNED, type GridColumn } from './grid-columns';

export const LINE_HEIGHT = 36;
const PADDING = 8;
/** Nearly the widest letter of a cell, in points. */
const WIDEST = 10;

/** What the sheet calls a cell, for whoever is told where the cursor is. */
export const cellId = (row: number, column: number): string => `cell-${row}-${column}`;

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
  /** Every held cell is a layer of its own: only where the sheet is moved to the side. */
  readonly isSideways: boolean;
}

/**
 * One line of the sheet; drawn again only when it is another. Plain elements of the page: sixteen
 * cells a line come and go by the hundred while the sheet is scrolled.
 */
export const SheetLine = memo(function SheetLine(props: Props) {
  const { row, index, top, plan, colours, notches, mark, marked, chosen, isSideways } = props;
  const marks = new Map(marked.split(',').map((one) => one.split(':') as [string, Severity]));
  const [left = NaN, right = NaN, at = NaN] = chosen === '' ? [] : chosen.split('-').map(Number);
  const line: CSSProperties = {
    position: 'absolute',
    left: 0,
    top,
    height: LINE_HEIGHT,
    width: GRID_WIDTH,
    display: 'flex',
    contain: 'layout style size',
    boxSizing: 'border-box',
    borderBottom: `1px solid ${colours.line}`,
  };
  return (
    <div role="row" aria-rowindex={index + 2} style={line}>
      {GRID_COLUMNS.map((column, place) => {
        const text = column.column?.text(row, plan) ?? '';
        return (
          <div
            key={column.id}
            role="gridcell"
            id={cellId(index, place)}
            aria-colindex={place + 1}
            aria-selected={place >= left && place <= right}
            data-row={index}
            data-column={place}
            style={cellStyle(column, colours, {
              severity: marks.get(column.id),
              isChosen: place >= left && place <= right,
              isCursor: place === at,
              isHeld: isSideways && column.id === PINNED,
              isLong: text.length * WIDEST > column.width - 2 * PADDING,
            })}
          >
            {column.id === 'title' && mark ? <Sign mark={mark} colours={colours} /> : null}
            {contentOf(column, text)}
          </div>
        );
      })}
    </div>
  );

  function contentOf({ id }: GridColumn, text: string) {
    if (id === 'stage') return <StageNotches notches={notches} size={13} />;
    if (id === 'address') return <AddressParts row={row} plan={plan} colours={colours} />;
    return text;
  }
});

function Sign({ mark, colours }: { readonly mark: Severity; readonly colours: Colours }) {
  const color = mark === 'wrong' ? colours.brick : colours.ochre;
  return <span style={{ color, fontWeight: 700 }}>{SIGNS[mark]} </span>;
}

/** What the subnet fixes light, what is this device's heavy. */
function AddressParts({ row, plan, colours }: Pick<Props, 'row' | 'plan' | 'colours'>) {
  if (!row.at) return null;
  const length = findSubnet(plan, row.at.subnetId)?.prefix.length ?? 24;
  const [light, heavy] = partsOfAddress(formatIpv4(row.at.address), length);
  return (
    <>
      <span style={{ color: colours.second }}>{light}</span>
      <span style={{ fontWeight: 700 }}>{heavy}</span>
    </>
  );
}

interface CellState {
  readonly severity: Severity | undefined;
  readonly isChosen: boolean;
  readonly isCursor: boolean;
  readonly isHeld: boolean;
  /** The text may not fit. */
  readonly isLong: boolean;
}

function cellStyle(
  { id, width, column }: GridColumn,
  colours: Colours,
  { severity, isChosen, isCursor, isHeld, isLong }: CellState,
): CSSProperties {
  const isPinned = id === PINNED;
  const isDark = isPinned || column?.figures;
  return {
    width,
    height: LINE_HEIGHT - 1,
    lineHeight: `${LINE_HEIGHT - 1}px`,
    padding: `0 ${PADDING}px`,
    flex: 'none',
    boxSizing: 'border-box',
    whiteSpace: 'pre',
    // A clip for every cell makes the page slow to scroll; most texts need none.
    ...(isLong ? { overflow: 'hidden', textOverflow: 'ellipsis' } : {}),
    ...(id === 'stage' ? { display: 'flex', alignItems: 'center' } : {}),
    fontFamily: column?.figures ? FIGURES : WORDS,
    fontSize: TYPE.second.fontSize,
    fontWeight: isPinned ? 600 : 400,
    color: isDark ? colours.ink : colours.second,
    backgroundColor: groundOf(colours, severity, isChosen, isPinned),
    outline: isCursor ? `2px solid ${colours.plum}` : 'none',
    outlineOffset: -2,
    ...(isHeld ? { position: 'sticky', left: 0, zIndex: 1 } : {}),
  };
}

function groundOf(
  colours: Colours,
  severity: Severity | undefined,
  isChosen: boolean,
  isPinned: boolean,
): string {
  if (severity === 'wrong') return colours.brickGround;
  if (severity === 'doubtful') return colours.ochreGround;
  if (isChosen) return colours.idle;
  return isPinned ? colours.ground : 'transparent';
}
