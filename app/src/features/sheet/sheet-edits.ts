import { editsOfTakingOut, type Edit, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import {
  continueSeries,
  editsOfCells,
  formatCells,
  LIST_COLUMNS,
  matchColumns,
  newRowsOf,
  type BadCell,
  type BadRowCell,
  type Cell,
  type ColumnId,
  type ListRow,
  type RowDefaults,
  type SheetRow,
} from '@ipsonomo/core/sheet';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import type { Rect } from './cursor';
import { GRID_COLUMNS } from './grid-columns';

/** What a change of the sheet comes to, before it is made. */
export interface Proposal {
  readonly edits: readonly Edit[];
  readonly bad: readonly (BadCell | BadRowCell)[];
  /** How many cells or lines it is about. */
  readonly count: number;
  readonly why: string;
}

interface Sheet {
  readonly plan: Plan;
  readonly doc: PlanDoc;
  /** The lines as they stand on the screen. */
  readonly lines: readonly SheetRow[];
  /** The subnet that is shown, where it is only one. */
  readonly subnetId: string | undefined;
}

const idAt = (column: number): ColumnId | undefined => GRID_COLUMNS[column]?.column?.id;

export function proposeCells(
  { plan, doc, lines }: Sheet,
  cells: readonly Cell[],
  why: string,
): Proposal {
  const wanted = new Set(cells.map((cell) => cell.row));
  const rows = new Map(lines.filter((row) => wanted.has(row.id)).map((row) => [row.id, row]));
  return { ...editsOfCells(plan, doc, rows, cells), count: cells.length, why };
}

/** The texts of chosen cells, as a spreadsheet takes them. */
export function copyCells({ plan, lines }: Sheet, { top, bottom, left, right }: Rect): string {
  const columns = GRID_COLUMNS.slice(left, right + 1);
  return formatCells(
    lines
      .slice(top, bottom + 1)
      .map((row) => columns.map(({ column }) => column?.text(row, plan) ?? '')),
  );
}

/** A text in every chosen cell. */
export function fillCells(
  sheet: Sheet,
  rect: Rect,
  textOf: (column: ColumnId, row: number) => string,
) {
  const cells: Cell[] = [];
  for (let row = rect.top; row <= rect.bottom; row += 1)
    for (let at = rect.left; at <= rect.right; at += 1) {
      const [line, column] = [sheet.lines[row], idAt(at)];
      if (line && column) cells.push({ row: line.id, column, text: textOf(column, row) });
    }
  return cells;
}

const textAt = ({ plan, lines }: Sheet, row: number, column: ColumnId): string => {
  const line = lines[row];
  const found = GRID_COLUMNS.find((one) => one.id === column)?.column;
  return line && found ? found.text(line, plan) : '';
};

/** The first chosen line in all of them. */
export function proposeFill(sheet: Sheet, rect: Rect): Proposal {
  const below = { ...rect, top: rect.top + 1 };
  const cells = fillCells(sheet, below, (column) => textAt(sheet, rect.top, column));
  return proposeCells(sheet, cells, SHEET_WORDS.filledCells({ cells: cells.length }));
}

/** What the first line has begun goes on; the first two, where they count by a step of their own. */
export function proposeSeries(sheet: Sheet, rect: Rect): Proposal {
  const count = rect.bottom - rect.top + 1;
  const made = new Map<ColumnId, readonly string[]>();
  const seriesOf = (column: ColumnId): readonly string[] => {
    const first = textAt(sheet, rect.top, column);
    const second = textAt(sheet, rect.top + 1, column);
    const both = count > 2 ? continueSeries([first, second], count) : [];
    const counts = both[0] !== undefined && both[0] !== first && first !== second;
    return counts ? [first, second, ...both] : [first, ...continueSeries([first], count)];
  };
  const cells = fillCells(sheet, { ...rect, top: rect.top + 1 }, (column, row) => {
    const series = made.get(column) ?? seriesOf(column);
    made.set(column, series);
    return series[row - rect.top] ?? '';
  });
  return proposeCells(sheet, cells, SHEET_WORDS.countedOnOverCells({ cells: cells.length }));
}

/** The devices of the chosen lines with all that is theirs. */
export function proposeTakingOut({ doc, lines }: Sheet, { top, bottom }: Rect): Proposal {
  const chosen = new Map(
    lines.slice(top, bottom + 1).map(({ device }) => [device.id, device.title]),
  );
  const [first] = chosen.values();
  return {
    edits: editsOfTakingOut(doc, new Set(chosen.keys())),
    bad: [],
    count: chosen.size,
    why: SHEET_WORDS.tookOutOfThePlan({
      chosen: chosen.size === 1 ? (first ?? '') : SHEET_WORDS.devices({ chosen: chosen.size }),
    }),
  };
}

/** Cells from a spreadsheet, put down at the cursor; what goes beyond the last line becomes devices. */
export function proposePaste(
  sheet: Sheet,
  block: readonly (readonly string[])[],
  rect: Rect,
  newId: (type: string) => string,
): Proposal {
  const headed = headingsOf(block);
  if (headed) return proposeRows(sheet, headed, lastDefaults(sheet), newId);
  // One cell into many: all of them.
  const [[only] = []] = block;
  if (block.length === 1 && block[0]?.length === 1 && only !== undefined)
    if (rect.top !== rect.bottom || rect.left !== rect.right)
      return proposeCells(
        sheet,
        fillCells(sheet, rect, () => only),
        SHEET_WORDS.pastedIntoTheSheet,
      );
  const inside = block.slice(0, Math.max(0, sheet.lines.length - rect.top));
  const cells = inside.flatMap((texts, index) => {
    const line = sheet.lines[rect.top + index];
    return texts.flatMap((text, at): readonly Cell[] => {
      const column = idAt(rect.left + at);
      return line && column ? [{ row: line.id, column, text }] : [];
    });
  });
  const beyond = block.slice(inside.length).map((texts) => rowFrom(texts, rect.left));
  const changed = proposeCells(sheet, cells, SHEET_WORDS.pastedCells({ cells: cells.length }));
  if (beyond.length === 0) return changed;
  const added = proposeRows(sheet, beyond, lastDefaults(sheet), newId);
  return {
    edits: [...changed.edits, ...added.edits],
    bad: [...changed.bad, ...added.bad],
    count: changed.count + added.count,
    why: added.why,
  };
}

export function proposeRows(
  { plan }: Sheet,
  list: readonly ListRow[],
  defaults: RowDefaults,
  newId: (type: string) => string,
): Proposal {
  const { edits, bad } = newRowsOf(plan, list, defaults, Date.now(), newId);
  return {
    edits,
    bad,
    count: list.length,
    why: SHEET_WORDS.addedDevicesFromAList({ list: list.length }),
  };
}

/** A new line is of the kind and in the subnet of the one above it, where it does not say. */
export function lastDefaults({ plan, lines, subnetId }: Sheet): RowDefaults {
  const last = lines.at(-1);
  const only = plan.subnets.length === 1 ? plan.subnets[0]?.id : undefined;
  const subnet = subnetId ?? last?.at?.subnetId ?? only;
  return {
    ...(last ? { kindId: last.device.kindId } : {}),
    ...(subnet === undefined ? {} : { subnetId: subnet }),
  };
}

function rowFrom(texts: readonly string[], left: number): ListRow {
  return Object.fromEntries(
    texts.flatMap((text, at) => {
      const column = idAt(left + at);
      return column ? [[column, text]] : [];
    }),
  );
}

/** Lines under headings, where the first line names at least two columns. */
function headingsOf(block: readonly (readonly string[])[]): readonly ListRow[] | undefined {
  const [head, ...lines] = block;
  const columns = head && lines.length > 0 ? matchColumns(head, LIST_COLUMNS) : [];
  if (columns.filter(Boolean).length < 2) return undefined;
  return lines.map((texts) =>
    Object.fromEntries(
      texts.flatMap((text, at) => {
        const column = columns[at];
        return column ? [[column, text]] : [];
      }),
    ),
  );
}
