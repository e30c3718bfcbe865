export { editsOfCells, type BadCell, type Cell } from './cells';
export { formatCells, parseCells } from './clipboard';
export {
  COLUMN_IDS,
  LIST_COLUMNS,
  columnOf,
  readAddress,
  rowsOf,
  SHEET_COLUMNS,
  type ColumnId,
  type SheetColumn,
  type SheetRow,
} from './columns';
export type { KindWords, UnknownKind } from './kinds-of-list';
export {
  columnsOfList,
  matchColumns,
  newRowsOf,
  type BadRowCell,
  type ListRow,
  type NewRows,
  type RowDefaults,
} from './rows';
export { updateOfList, type CellUpdate, type ListUpdate, type RowUpdate } from './update-list';
export { continueSeries } from './series';
