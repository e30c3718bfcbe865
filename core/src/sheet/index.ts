export { editsOfCells, type BadCell, type Cell } from './cells';
export { formatCells, parseCells } from './clipboard';
export {
  COLUMN_IDS,
  columnOf,
  readAddress,
  rowsOf,
  SHEET_COLUMNS,
  type ColumnId,
  type SheetColumn,
  type SheetRow,
} from './columns';
export {
  matchColumns,
  newRowsOf,
  type BadRowCell,
  type ListRow,
  type NewRows,
  type RowDefaults,
} from './rows';
export { continueSeries } from './series';
