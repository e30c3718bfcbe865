import ExcelJS from 'exceljs';

export interface Sheet {
  readonly name: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

const WIDEST = 60;
/** Control characters have no place in XML 1.0 (§2.2). */
const CONTROLS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** What Excel's own rules leave of the name of a sheet: 31 letters, none of these. */
const sheetName = (name: string, taken: ReadonlySet<string>): string => {
  const plain =
    name
      .replace(/[[\]:*?/\\']/g, ' ')
      .replace(CONTROLS, ' ')
      .trim() || 'Sheet';
  for (let at = 1; ; at += 1) {
    const short = at === 1 ? plain.slice(0, 31) : `${plain.slice(0, 27)} ${at}`;
    if (!taken.has(short.toLowerCase())) return short;
  }
};

/**
 * R-XLSX: sheets with a frozen head, a filter over all of it and widths by what stands in them. Text stays text: a cell
 * is typed, so nothing of it is run as a formula.
 */
export async function xlsx(sheets: readonly Sheet[], at: number): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.created = new Date(at);
  book.modified = new Date(at);
  const taken = new Set<string>();
  for (const { name, heads, rows } of sheets) {
    const own = sheetName(name, taken);
    taken.add(own.toLowerCase());
    const sheet = book.addWorksheet(own, { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.addRow([...heads]).font = { bold: true };
    for (const row of rows)
      sheet.addRow(
        row.map((cell) => (typeof cell === 'string' ? cell.replace(CONTROLS, '') : cell)),
      );
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: heads.length } };
    heads.forEach((head, column) => {
      const longest = rows.reduce(
        (most, row) => Math.max(most, String(row[column] ?? '').length),
        0,
      );
      sheet.getColumn(column + 1).width = Math.min(WIDEST, Math.max(head.length, longest) + 2);
    });
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
