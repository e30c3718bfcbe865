import { Readable } from 'node:stream';
import ExcelJS from 'exceljs';
import { fail, ok, type Issue, type Result } from '@ipsonomo/core/net';
import { MOST_CELLS, MOST_COLUMNS, MOST_ROWS, tableOf, type Line, type ListTable } from './table';

/**
 * Reads the sheets of a workbook row by row, so that one that unpacks to more than it should is left
 * at the first row too many.
 * @param progress called with the share that was read, 0 to 1
 */
export async function readXlsx(
  name: string,
  bytes: Uint8Array,
  progress: (share: number) => void,
): Promise<Result<readonly ListTable[], Issue>> {
  const tables: ListTable[] = [];
  try {
    const reader = new ExcelJS.stream.xlsx.WorkbookReader(pieces(bytes, progress), {
      entries: 'emit',
      sharedStrings: 'cache',
      hyperlinks: 'ignore',
      styles: 'cache',
      worksheets: 'emit',
    });
    for await (const sheet of reader) {
      const lines: Line[] = [];
      let cells = 0;
      for await (const row of sheet) {
        if (lines.length > MOST_ROWS)
          return fail({ code: 'list.long', where: name, facts: { most: MOST_ROWS } });
        const line = textsOf(row);
        if (line.length > MOST_COLUMNS)
          return fail({ code: 'list.wide', where: name, facts: { most: MOST_COLUMNS } });
        cells += line.length;
        if (cells > MOST_CELLS)
          return fail({ code: 'list.large', where: name, facts: { most: MOST_CELLS } });
        lines.push({ at: row.number, cells: line });
      }
      const table = tableOf((sheet as { readonly name?: string }).name ?? name, lines);
      if (table.rows.length > 0) tables.push(table);
    }
  } catch (error) {
    return fail({ code: 'list.xlsx', where: name, facts: { why: (error as Error).message } });
  }
  return tables.length === 0 ? fail({ code: 'list.empty', where: name }) : ok(tables);
}

const PIECE = 64 * 1024;

function pieces(bytes: Uint8Array, progress: (share: number) => void): Readable {
  let at = 0;
  return new Readable({
    read() {
      if (at >= bytes.length) {
        this.push(null);
        return;
      }
      this.push(bytes.subarray(at, at + PIECE));
      at = Math.min(bytes.length, at + PIECE);
      progress(at / bytes.length);
    },
  });
}

function textsOf(row: ExcelJS.Row): string[] {
  const texts: string[] = [];
  row.eachCell({ includeEmpty: true }, (cell, column) => {
    while (texts.length < column - 1) texts.push('');
    texts.push(textOf(cell.value));
  });
  return texts;
}

/** A cell as a person reads it: a formula by its result, a date by its day. */
function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((one) => one.text).join('');
  if ('text' in value) return String(value.text);
  if ('result' in value) return textOf(value.result ?? null);
  if ('error' in value) return String(value.error);
  return '';
}
