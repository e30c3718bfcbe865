import type { Table } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { Pressable, View, type ViewStyle } from 'react-native';
import type { NotchView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import type { SheetRow } from '@ipsonomo/core/sheet';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { Words } from '../../parts';
import { useColours } from '../../theme';
import { CellEditor } from './CellEditor';
import { cellIssue } from './cell-issue';
import { GRID_COLUMNS, GRID_WIDTH } from './grid-columns';
import { cellKey, choicesOf, type Marks } from './marks';
import { SheetHead } from './SheetHead';
import { cellId, LINE_HEIGHT, SheetLine } from './SheetLine';
import { useKeys } from './use-keys';
import type { SheetState } from './use-sheet';

interface Props {
  readonly plan: Plan;
  readonly kinds: readonly string[];
  readonly table: Table<SheetRow>;
  readonly sheet: SheetState;
  readonly marks: Marks;
  readonly notchesOf: (row: SheetRow) => readonly NotchView[];
  readonly isFiltering: boolean;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly onFind: () => void;
}

const HEAD = 37;

/** All devices as a sheet: keys move, typing writes, a paste from a spreadsheet is taken anywhere. */
export function Sheet(props: Props) {
  const { plan, table, sheet, marks, isFiltering } = props;
  const colours = useColours();
  const body = useRef<HTMLElement>(null);
  const { lines, rect, cursor } = sheet;
  // It tells by itself when to draw again, which no memo of ours can know.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => body.current,
    estimateSize: () => LINE_HEIGHT,
    overscan: 8,
    // Drawn with the next frame and not in the middle of this one.
    useFlushSync: false,
  });
  useKeys(body, sheet, { undo: props.onUndo, redo: props.onRedo, find: props.onFind });
  useKeepInSight(body, cursor.row, cursor.column);
  const wasEditing = useRef(false);
  useEffect(() => {
    // Back from a cell; whoever has just come is where they came to.
    if (!sheet.editing && wasEditing.current) body.current?.focus({ preventScroll: true });
    wasEditing.current = sheet.editing !== undefined;
  }, [sheet.editing]);
  const height = (lines.length + 1) * LINE_HEIGHT;
  const items = virtual.getVirtualItems();
  const pool = usePool(items.length);
  const isSideways = useSideways(body);
  return (
    <View
      ref={body as never}
      role="grid"
      aria-rowcount={lines.length + 2}
      aria-colcount={GRID_COLUMNS.length}
      {...{ 'aria-activedescendant': cellId(cursor.row, cursor.column) }}
      aria-label={COMMON_WORDS.devices}
      tabIndex={0}
      {...pointerOf(sheet)}
      style={
        { flex: 1, overflow: 'scroll', outlineWidth: 0, userSelect: 'none' } as unknown as ViewStyle
      }
    >
      <SheetHead table={table} isFiltering={isFiltering} />
      <View style={{ height, width: GRID_WIDTH }}>
        {items.map(({ index, start }) => {
          const row = lines[index];
          if (!row) return null;
          const isIn = index >= rect.top && index <= rect.bottom && cursor.row < lines.length;
          const at = index === cursor.row ? cursor.column : NaN;
          return (
            <SheetLine
              key={index % pool}
              {...{ row, index, plan, colours, isSideways }}
              top={start}
              notches={props.notchesOf(row)}
              mark={marks.rows.get(row.id)}
              marked={markedOf(marks, row.id)}
              chosen={isIn ? `${rect.left}-${rect.right}-${at}` : ''}
            />
          );
        })}
        <NewLine
          top={height - LINE_HEIGHT}
          isChosen={cursor.row === lines.length}
          row={lines.length}
        />
        {sheet.editing ? <Editor {...props} /> : null}
      </View>
    </View>
  );
}

/** Is the sheet moved to the side, so that its first column has to be held? */
function useSideways(body: RefObject<HTMLElement | null>): boolean {
  const [isSideways, setSideways] = useState(false);
  useEffect(() => {
    const element = body.current;
    const onScroll = () => setSideways((element?.scrollLeft ?? 0) > 0);
    element?.addEventListener('scroll', onScroll, { passive: true });
    return () => element?.removeEventListener('scroll', onScroll);
  }, [body]);
  return isSideways;
}

/** A line that leaves the window is used again for one that enters it: as many as were ever in it. */
function usePool(count: number): number {
  const [most, setMost] = useState(count);
  if (count > most) setMost(count);
  return Math.max(count, most, 1);
}

function Editor({ plan, kinds, sheet }: Props) {
  const { editing, lines } = sheet;
  const column = editing && GRID_COLUMNS[editing.column];
  if (!editing || !column?.column) return null;
  const left = GRID_COLUMNS.slice(0, editing.column).reduce((sum, one) => sum + one.width, 0);
  const row = lines[editing.row];
  const words = column.id === 'kind' ? kinds : choicesOf(plan, column.id);
  return (
    <CellEditor
      key={`${editing.row}|${editing.column}`}
      text={editing.text}
      left={left}
      top={editing.row * LINE_HEIGHT}
      width={column.width}
      label={SHEET_WORDS.of({
        title: column.title,
        title2: row?.device.title ?? SHEET_WORDS.aNewDevice,
      })}
      isFigures={column.column.figures === true}
      choices={words}
      issue={cellIssue(plan, column.column, row, editing.text)}
      onChange={(text) => sheet.setEditing({ ...editing, text })}
      onDone={(text, step) => sheet.write({ ...editing, text }, step)}
      onLeave={() => sheet.setEditing(undefined)}
    />
  );
}

function NewLine({
  top,
  isChosen,
  row,
}: {
  readonly top: number;
  readonly isChosen: boolean;
  readonly row: number;
}) {
  const colours = useColours();
  return (
    <Pressable
      {...({ dataSet: { row: String(row), column: '0' } } as object)}
      tabIndex={-1}
      {...({ role: 'row' } as object)}
      style={{
        position: 'absolute',
        top,
        left: 0,
        width: GRID_WIDTH,
        height: LINE_HEIGHT,
        paddingHorizontal: 8,
        justifyContent: 'center',
        backgroundColor: isChosen ? colours.idle : 'transparent',
      }}
    >
      <View {...({ role: 'gridcell', id: cellId(row, 0) } as object)}>
        <Words size="second" tone="second" lines={1}>
          {SHEET_WORDS.aNewDeviceTypeItsName}
        </Words>
      </View>
    </Pressable>
  );
}

const markedOf = (marks: Marks, row: string): string =>
  marks.rows.has(row)
    ? GRID_COLUMNS.flatMap(({ id }) => {
        const severity = marks.cells.get(cellKey(row, id));
        return severity ? [`${id}:${severity}`] : [];
      }).join(',')
    : '';

/** The cell under the pointer. */
function cellOf(
  target: EventTarget | null,
): { readonly row: number; readonly column: number } | undefined {
  const element = target instanceof Element ? target.closest('[data-row]') : null;
  if (!(element instanceof HTMLElement)) return undefined;
  return { row: Number(element.dataset['row']), column: Number(element.dataset['column']) };
}

interface Pointer {
  readonly target: EventTarget | null;
  readonly nativeEvent: { readonly shiftKey?: boolean; readonly buttons?: number };
}

/** Pressing chooses, dragging and shift choose more, a double press begins to write. */
const pointerOf = (sheet: SheetState): object => ({
  onPointerDown: ({ target, nativeEvent }: Pointer) => {
    const cell = cellOf(target);
    if (cell) sheet.select(cell.row, cell.column, nativeEvent.shiftKey === true);
  },
  onPointerMove: ({ target, nativeEvent }: Pointer) => {
    const cell = nativeEvent.buttons === 1 ? cellOf(target) : undefined;
    if (cell && (cell.row !== sheet.cursor.row || cell.column !== sheet.cursor.column))
      sheet.select(cell.row, cell.column, true);
  },
  onDoubleClick: ({ target }: Pointer) => {
    const cell = cellOf(target);
    if (cell) sheet.edit(undefined, cell);
  },
});

/** The cell of the cursor is never under the headings, the pinned column or an edge. */
function useKeepInSight(
  body: React.RefObject<HTMLElement | null>,
  row: number,
  column: number,
): void {
  useEffect(() => {
    const element = body.current;
    if (!element) return;
    const top = row * LINE_HEIGHT;
    const seen = element.clientHeight - HEAD - LINE_HEIGHT;
    if (top < element.scrollTop) element.scrollTo({ top });
    else if (top > element.scrollTop + seen) element.scrollTo({ top: top - seen });
    const left = GRID_COLUMNS.slice(0, column).reduce((sum, one) => sum + one.width, 0);
    const pinned = column === 0 ? 0 : (GRID_COLUMNS[0]?.width ?? 0);
    const width = GRID_COLUMNS[column]?.width ?? 0;
    if (left - pinned < element.scrollLeft) element.scrollTo({ left: left - pinned });
    else if (left + width > element.scrollLeft + element.clientWidth)
      element.scrollTo({ left: left + width - element.clientWidth });
  }, [body, row, column]);
}
