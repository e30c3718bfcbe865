/** A list as it was read from a file: texts, nothing taken for anything yet. */
export interface ListTable {
  readonly name: string;
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** How much a list may hold; a site has fewer devices. */
export const MOST_ROWS = 60_000;
export const MOST_COLUMNS = 200;
/** With empty ones between filled ones. */
export const MOST_CELLS = 1_000_000;

/**
 * The first line with at least two texts is the one of the headings; what stands above it is a title.
 * Lines without any text are left out.
 */
export function tableOf(name: string, lines: readonly (readonly string[])[]): ListTable {
  const filled = lines.filter((line) => line.some((cell) => cell.trim() !== ''));
  const at = Math.max(
    0,
    filled.findIndex((line) => textsIn(line) >= Math.min(2, widest(filled))),
  );
  return { name, headings: filled[at] ?? [], rows: filled.slice(at + 1) };
}

const textsIn = (line: readonly string[]): number =>
  line.filter((cell) => cell.trim() !== '').length;

const widest = (lines: readonly (readonly string[])[]): number =>
  lines.reduce((most, line) => Math.max(most, textsIn(line)), 0);
