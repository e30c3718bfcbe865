/** Where in the sheet a person is: the cell, and the other corner of what is chosen. */
export interface Cursor {
  readonly row: number;
  readonly column: number;
  readonly anchorRow: number;
  readonly anchorColumn: number;
}

export interface Size {
  readonly rows: number;
  readonly columns: number;
}

/** Chosen cells, both ends within. */
export interface Rect {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export const START: Cursor = { row: 0, column: 0, anchorRow: 0, anchorColumn: 0 };

const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));

/** The cursor at a cell. @param extend keeps the other corner where it is */
export function moveTo(
  cursor: Cursor,
  row: number,
  column: number,
  { rows, columns }: Size,
  extend = false,
): Cursor {
  const to = { row: clamp(row, rows - 1), column: clamp(column, columns - 1) };
  return extend ? { ...cursor, ...to } : { ...to, anchorRow: to.row, anchorColumn: to.column };
}

export const rectOf = ({ row, column, anchorRow, anchorColumn }: Cursor): Rect => ({
  top: Math.min(row, anchorRow),
  bottom: Math.max(row, anchorRow),
  left: Math.min(column, anchorColumn),
  right: Math.max(column, anchorColumn),
});

/** How many lines a page has. */
const PAGE = 15;

interface Step {
  readonly rows: number;
  readonly columns: number;
}

const STEPS: Readonly<Record<string, Step>> = {
  ArrowUp: { rows: -1, columns: 0 },
  ArrowDown: { rows: 1, columns: 0 },
  ArrowLeft: { rows: 0, columns: -1 },
  ArrowRight: { rows: 0, columns: 1 },
  PageUp: { rows: -PAGE, columns: 0 },
  PageDown: { rows: PAGE, columns: 0 },
  Home: { rows: 0, columns: -Infinity },
  End: { rows: 0, columns: Infinity },
};

interface Key {
  readonly key: string;
  readonly shift: boolean;
  /** Control or command: to the very end. */
  readonly far: boolean;
}

/** The cursor after a key that moves it; undefined for one that does not. */
export function moveBy(cursor: Cursor, { key, shift, far }: Key, size: Size): Cursor | undefined {
  if (key === 'Tab') return moveTo(cursor, cursor.row, cursor.column + (shift ? -1 : 1), size);
  if (far && key === 'a')
    return { row: size.rows - 1, column: size.columns - 1, anchorRow: 0, anchorColumn: 0 };
  const step = STEPS[key];
  if (!step) return undefined;
  const reach = (by: number) => (far && by !== 0 ? Math.sign(by) * Infinity : by);
  const row = far && (key === 'Home' || key === 'End') ? cursor.row + step.columns : cursor.row;
  return moveTo(cursor, row + reach(step.rows), cursor.column + reach(step.columns), size, shift);
}
