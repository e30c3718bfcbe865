/** A list as it was read from a file: texts, nothing taken for anything yet. */
export interface ListTable {
  readonly name: string;
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Of each row its line in the file, counted from 1. */
  readonly lines: readonly number[];
}

/** The cells of one line, and where it stands in its file. */
export interface Line {
  readonly at: number;
  readonly cells: readonly string[];
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
export function tableOf(name: string, lines: readonly Line[]): ListTable {
  const filled = lines.filter(({ cells }) => cells.some((cell) => cell.trim() !== ''));
  const at = Math.max(
    0,
    filled.findIndex((line) => textsIn(line) >= Math.min(2, widest(filled))),
  );
  const below = filled.slice(at + 1);
  return {
    ...{ name, headings: filled[at]?.cells ?? [], rows: below.map(({ cells }) => cells) },
    lines: below.map((line) => line.at),
  };
}

const textsIn = ({ cells }: Line): number => cells.filter((cell) => cell.trim() !== '').length;

const widest = (lines: readonly Line[]): number =>
  lines.reduce((most, line) => Math.max(most, textsIn(line)), 0);
