import { CsvError, parse } from 'csv-parse/sync';
import { fail, ok, type Issue, type Result } from '@ipsonomo/core/net';
import { decodeText } from '../common/decode-text';
import { MOST_COLUMNS, MOST_ROWS, tableOf, type ListTable } from './table';

/** Reads comma, semicolon or tab separated text (RFC 4180, with the separators spreadsheets write). */
export function readCsv(name: string, bytes: Uint8Array): Result<readonly ListTable[], Issue> {
  const text = decodeText(bytes);
  if (text.includes('\u0000')) return fail({ code: 'list.binary', where: name });
  try {
    const lines = parse(text, {
      bom: true,
      delimiter: separatorOf(text),
      relax_column_count: true,
      trim: true,
      to: MOST_ROWS + 2,
    }) as string[][];
    if (lines.length > MOST_ROWS + 1)
      return fail({ code: 'list.long', where: name, facts: { most: MOST_ROWS } });
    if (lines.filter((line) => line.some((cell) => cell !== '')).length < 2)
      return fail({ code: 'list.empty', where: name });
    if (lines.some((line) => line.length > MOST_COLUMNS))
      return fail({ code: 'list.wide', where: name, facts: { most: MOST_COLUMNS } });
    // A row is counted as a spreadsheet counts it, empty ones too.
    return ok([
      tableOf(
        name,
        lines.map((cells, at) => ({ cells, at: at + 1 })),
      ),
    ]);
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return fail({ code: 'list.csv', where: name, facts: factsOf(error) });
  }
}

const factsOf = (error: CsvError) => ({
  line: typeof error['lines'] === 'number' ? error['lines'] : 0,
  why: error.code,
});

/** How far into a list its separator is looked for. */
const FIRST_LINES = 20;
const FIRST_CHARACTERS = 20_000;

/** The separator that most of the first lines have, and of two the one that stands there more often: a title has none. */
function separatorOf(text: string): string {
  const lines = text.slice(0, FIRST_CHARACTERS).split(/[\r\n]+/, FIRST_LINES);
  const counts = [';', '\t', ','].map((one) => {
    const each = lines.map((line) => line.split(one).length - 1);
    return {
      one,
      lines: each.filter((count) => count > 0).length,
      all: each.reduce((sum, count) => sum + count, 0),
    };
  });
  return counts.sort((a, b) => b.lines - a.lines || b.all - a.all)[0]?.one ?? ',';
}
