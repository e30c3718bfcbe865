import { columnWords } from '@ipsonomo/language';
import { SHEET_WORDS } from '@ipsonomo/language/screens/sheet';
import { columnOf, type ColumnId, type SheetColumn } from '@ipsonomo/core/sheet';

/** A column as the sheet shows it; the stage is seen and never typed. */
export interface GridColumn {
  readonly id: ColumnId | 'stage';
  readonly title: string;
  readonly width: number;
  readonly column: SheetColumn | undefined;
  /** Texts to choose from while typing. */
  readonly hasChoice: boolean;
}

const WIDTHS: readonly (readonly [id: ColumnId | 'stage', width: number])[] = [
  ['title', 210],
  ['cabinet', 76],
  ['position', 70],
  ['address', 140],
  ['stage', 100],
  ['name', 180],
  ['kind', 190],
  ['way', 150],
  ['subnet', 130],
  ['controller', 190],
  ['stationName', 180],
  ['mac', 160],
  ['mask', 140],
  ['gateway', 140],
  ['serial', 140],
  ['area', 120],
  ['dhcpName', 150],
  ['variable', 150],
  ['note', 220],
];

const CHOSEN: readonly (ColumnId | 'stage')[] = ['kind', 'way', 'subnet', 'controller'];

export const GRID_COLUMNS: readonly GridColumn[] = WIDTHS.map(([id, width]) => {
  const column = id === 'stage' ? undefined : columnOf(id);
  return {
    id,
    width,
    column,
    title: column ? columnWords(column) : SHEET_WORDS.stage,
    hasChoice: CHOSEN.includes(id),
  };
});

export const GRID_WIDTH = WIDTHS.reduce((sum, [, width]) => sum + width, 0);

/** The column that stays in sight when the others are moved. */
export const PINNED = 'title';
