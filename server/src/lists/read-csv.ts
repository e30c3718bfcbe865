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
      skip_empty_lines: true,
      trim: true,
      to: MOST_ROWS + 2,
    }) as string[][];
    if (lines.length > MOST_ROWS + 1)
      return fail({ code: 'list.long', where: name, facts: { most: MOST_ROWS } });
    if (lines.length < 2) return fail({ code: 'list.empty', where: name });
    if (lines.some((line) => line.length > MOST_COLUMNS))
      return fail({ code: 'list.wide', where: name, facts: { most: MOST_COLUMNS } });
    return ok([tableOf(name, lines)]);
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return fail({ code: 'list.csv', where: name, facts: factsOf(error) });
  }
}

const factsOf = (error: CsvError) => ({
  line: typeof error['lines'] === 'number' ? error['lines'] : 0,
  why: error.code,
});

/** The separator that stands most often in the first line. */
function separatorOf(text: string): string {
  const end = text.search(/[\r\n]/);
  const line = end < 0 ? text : text.slice(0, end);
  const counts = [';', '\t', ','].map((one) => [one, line.split(one).length] as const);
  return counts.sort((a, b) => b[1] - a[1])[0]?.[0] ?? ',';
}
