// Cells as spreadsheets put them on the clipboard: tabs between cells, line ends between rows; a cell
// with a tab, a line end or a quote in it stands in quotes, its own quotes doubled (common practice, no
// source; RFC 4180 §2 has the same quotes for commas).

/** @example parseCells('a\tb\r\nc\td\r\n') // [['a', 'b'], ['c', 'd']] */
export function parseCells(text: string): readonly (readonly string[])[] {
  const rows: string[][] = [];
  let row: string[] = [];
  let at = 0;
  while (at < text.length) {
    const [cell, next] = text[at] === '"' ? quoted(text, at) : bare(text, at);
    row.push(cell);
    const end = text[next];
    at = next + 1;
    if (end === '\t') {
      // A tab at the very end leaves an empty cell behind it.
      if (at === text.length) row.push('');
      continue;
    }
    if (end === '\r' && text[at] === '\n') at += 1;
    rows.push(row);
    row = [];
  }
  if (row.length > 0) rows.push(row);
  return rows;
}

const bare = (text: string, from: number): readonly [cell: string, next: number] => {
  let to = from;
  while (to < text.length && !'\t\r\n'.includes(text[to] ?? '')) to += 1;
  return [text.slice(from, to), to];
};

/** A quoted cell; one whose quote never ends is taken as it stands. */
function quoted(text: string, from: number): readonly [cell: string, next: number] {
  let cell = '';
  for (let at = from + 1; at < text.length; at += 1) {
    if (text[at] !== '"') cell += text[at] ?? '';
    else if (text[at + 1] === '"') {
      cell += '"';
      at += 1;
    } else {
      const isEnd = at + 1 === text.length || '\t\r\n'.includes(text[at + 1] ?? '');
      return isEnd ? [cell, at + 1] : bare(text, from);
    }
  }
  return bare(text, from);
}

/** The way back; what a spreadsheet takes. */
export const formatCells = (rows: readonly (readonly string[])[]): string =>
  rows
    .map((row) =>
      row
        .map((cell) => (/["\t\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell))
        .join('\t'),
    )
    .join('\r\n');
