import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type ColumnFiltersState,
  type SortingState,
} from '@tanstack/react-table';
import { useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { parseIpv4 } from '@ipsonomo/core/net';
import type { Plan } from '@ipsonomo/core/plan';
import type { SheetRow } from '@ipsonomo/core/sheet';
import { GRID_COLUMNS } from './grid-columns';

const order = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Addresses by their value, everything else as people count: 2 before 10. */
function compareTexts(a: string, b: string): number {
  const [x, y] = [parseIpv4(a), parseIpv4(b)];
  return x.ok && y.ok ? x.value - y.value : order.compare(a, b);
}

const holds = (text: string, wanted: string): boolean =>
  text.toLowerCase().includes(wanted.trim().toLowerCase());

/** The lines as they are now, asked by those that were put in order before. */
interface Live {
  readonly plan: Plan;
  readonly byId: ReadonlyMap<string, SheetRow>;
}

const isSameOrder = (a: readonly SheetRow[], b: readonly SheetRow[]): boolean =>
  a.length === b.length && a.every((row, index) => row.id === b[index]?.id);

/**
 * The lines of the plan sorted, filtered and searched; the mechanics are TanStack Table's. A change in
 * a cell leaves every line where it is: they are put in order anew when a person asks for it, or when
 * lines come or go.
 */
export function useTable(rows: readonly SheetRow[], plan: Plan) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [columnFilters, setColumnFilters] = useState<ColumnFiltersState>([]);
  const [globalFilter, setFind] = useState('');
  const [data, setData] = useState(() => [...rows]);
  if (data !== rows && !isSameOrder(data, rows)) setData([...rows]);
  const byId = useMemo(() => new Map(rows.map((row) => [row.id, row])), [rows]);
  const live = useRef<Live>({ plan, byId });
  useLayoutEffect(() => {
    live.current = { plan, byId };
  });
  const columns = useMemo(() => columnsOver(live), []);
  // The table is one object whose answers change; nothing here is kept by its identity.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns,
    state: { sorting, columnFilters, globalFilter },
    onSortingChange: setSorting,
    onColumnFiltersChange: setColumnFilters,
    onGlobalFilterChange: setFind,
    globalFilterFn: (row, columnId, wanted: string) =>
      holds(textNow(live, row.original, columnId), wanted),
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    autoResetAll: false,
  });
  const ordered = table.getRowModel().rows;
  const lines = useMemo(
    () => ordered.map((row) => byId.get(row.id) ?? row.original),
    [ordered, byId],
  );
  return { table, lines, find: globalFilter, setFind, isFiltered: columnFilters.length > 0 };
}

/** The text of a cell as it is now; what the table keeps of a line is from when it was put in order. */
function textNow({ current: { plan, byId } }: RefObject<Live>, kept: SheetRow, id: string): string {
  const column = GRID_COLUMNS.find((one) => one.id === id)?.column;
  return column?.text(byId.get(kept.id) ?? kept, plan) ?? '';
}

const columnsOver = (live: RefObject<Live>) =>
  GRID_COLUMNS.map(({ id, column }): ColumnDef<SheetRow, string> => ({
    id,
    // What is compared and looked for is asked anew; this only says that there is something.
    accessorFn: () => '',
    sortingFn: (a, b) => compareTexts(textNow(live, a.original, id), textNow(live, b.original, id)),
    filterFn: (row, _id, wanted: string) => holds(textNow(live, row.original, id), wanted),
    enableSorting: column !== undefined,
  }));
