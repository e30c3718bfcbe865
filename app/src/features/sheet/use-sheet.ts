import { useCallback, useMemo, useState } from 'react';
import type { Plan, PlanDoc } from '@ipsonomo/core/plan';
import { parseCells, type ColumnId, type SheetRow } from '@ipsonomo/core/sheet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { moveTo, rectOf, START, type Cursor, type Rect } from './cursor';
import { GRID_COLUMNS } from './grid-columns';
import {
  copyCells,
  fillCells,
  lastDefaults,
  proposeCells,
  proposeFill,
  proposePaste,
  proposeRows,
  proposeSeries,
  proposeTakingOut,
  type Proposal,
} from './sheet-edits';
import { newId } from '../../data/new-id';

/** A cell that is being typed in. */
export interface Editing {
  readonly row: number;
  readonly column: number;
  readonly text: string;
}

interface Options {
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly lines: readonly SheetRow[];
  readonly subnetId: string | undefined;
  /** Makes the change; what cannot be taken is asked about first. */
  readonly make: (proposal: Proposal) => void;
}

/** Where one is in the sheet, what is chosen, what is being typed, and what keys and pastes do. */
export function useSheet({ plan, doc, lines, subnetId, make }: Options) {
  const [cursor, setCursor] = useState<Cursor>(START);
  const [editing, setEditing] = useState<Editing>();
  const sheet = useMemo(() => ({ plan, doc, lines, subnetId }), [plan, doc, lines, subnetId]);
  // One line more than there are devices: what is written there becomes a new one.
  const size = useMemo(
    () => ({ rows: lines.length + 1, columns: GRID_COLUMNS.length }),
    [lines.length],
  );
  const rect = useMemo(() => clip(rectOf(cursor), lines.length), [cursor, lines.length]);
  const select = useCallback(
    (row: number, column: number, extend: boolean) => {
      setEditing(undefined);
      setCursor((now) => moveTo(now, row, column, size, extend));
    },
    [size],
  );
  const edit = (text?: string, at: Pick<Cursor, 'row' | 'column'> = cursor) => {
    const column = GRID_COLUMNS[at.column]?.column;
    if (!column) return;
    const line = lines[at.row];
    setEditing({
      row: at.row,
      column: at.column,
      text: text ?? (line ? column.text(line, plan) : ''),
    });
  };
  const write = (at: Editing, step: { readonly rows: number; readonly columns: number }) => {
    const column = GRID_COLUMNS[at.column]?.column;
    const line = lines[at.row];
    if (column && line && at.text !== column.text(line, plan))
      make(
        proposeCells(
          sheet,
          [{ row: line.id, column: column.id, text: at.text }],
          COMMON_WORDS.changed({ title: line.device.title }),
        ),
      );
    else if (column && !line && at.text.trim() !== '')
      make(proposeRows(sheet, [{ [column.id]: at.text }], lastDefaults(sheet), newId));
    setEditing(undefined);
    setCursor((now) => moveTo(now, at.row + step.rows, at.column + step.columns, size));
  };
  const clear = () => {
    const cells = fillCells(sheet, rect, () => '').filter(({ column }) => CLEARED.has(column));
    if (cells.length > 0)
      make(proposeCells(sheet, cells, SHEET_WORDS.emptiedCells({ cells: cells.length })));
  };
  return {
    ...{ cursor, rect, editing, setEditing, lines, size, select, setCursor, edit, write, clear },
    fill: () => make(proposeFill(sheet, rect)),
    countOn: () => make(proposeSeries(sheet, rect)),
    takeOut: () => make(proposeTakingOut(sheet, rect)),
    copy: () => copyCells(sheet, rect),
    paste: (text: string) => make(proposePaste(sheet, parseCells(text), rectOf(cursor), newId)),
  };
}

export type SheetState = ReturnType<typeof useSheet>;

/** Columns in which an empty cell means something. */
const CLEARED: ReadonlySet<ColumnId> = new Set([
  ...(['area', 'cabinet', 'position', 'note', 'mac', 'controller'] as const),
  ...(['stationName', 'dhcpName', 'variable'] as const),
]);

/** The line for new devices is no part of what is chosen. */
const clip = (rect: Rect, lines: number): Rect => ({
  ...rect,
  top: Math.min(rect.top, Math.max(0, lines - 1)),
  bottom: Math.min(rect.bottom, Math.max(0, lines - 1)),
});
