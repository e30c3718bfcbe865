import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type ColumnFiltersState,
  type SortingState,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { parseIpv4, type Plan, type SheetRow } from '@ipsonomo/core';
import { GRID_COLUMNS } from './grid-columns';

const order = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Addresses by their value, everything else as people count: 2 before 10. */
function compareTexts(a: string, b: string): number {
  const [x, y] = [parseIpv4(a), parseIpv4(b)];
  return x.ok && y.ok ? x.value - y.value : order.compare(a, b);
}

const holds = (text: string, wanted: string): boolean =>
  text.toLowerCase().includes(wanted.trim().toLowerCase());

/** The lines of the plan sorted, filtered and searched; the mechanics are TanStack Table's. */
export function useTable(rows: readonly SheetRow[], plan: Plan) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [columnFilters, setColumnFilters] = useState<ColumnFiltersState>([]);
  const [globalFilter, setFind] = useState('');
  const columns = useMemo(
    () =>
      GRID_COLUMNS.map(({ id, column }): ColumnDef<SheetRow, string> => ({
        id,
        accessorFn: (row) => column?.text(row, plan) ?? '',
        sortingFn: (a, b, columnId) =>
          compareTexts(a.getValue<string>(columnId), b.getValue<string>(columnId)),
        filterFn: (row, columnId, wanted: string) => holds(row.getValue(columnId), wanted),
        enableSorting: column !== undefined,
      })),
    [plan],
  );
  const data = useMemo(() => [...rows], [rows]);
  // The table is one object whose answers change; nothing here is kept by its identity.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns,
    state: { sorting, columnFilters, globalFilter },
    onSortingChange: setSorting,
    onColumnFiltersChange: setColumnFilters,
    onGlobalFilterChange: setFind,
    globalFilterFn: (row, columnId, wanted: string) => holds(row.getValue(columnId), wanted),
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    autoResetAll: false,
  });
  return { table, find: globalFilter, setFind, isFiltered: columnFilters.length > 0 };
}
