import * as fontkit from 'fontkit';

// The application's own fonts on paper, as static files: each face in two, Latin and Latin extended.

export const FACES = ['sans', 'bold', 'mono'] as const;
export type Face = (typeof FACES)[number];

const NEXT = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next';
const MONO = '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono';

const FILES: Readonly<Record<Face, readonly string[]>> = {
  sans: files(NEXT, 400),
  bold: files(NEXT, 700),
  mono: files(MONO, 700),
};

function files(family: string, weight: number): readonly string[] {
  return ['latin', 'latin-ext'].map((part) =>
    require.resolve(`${family}-${part}-${weight}-normal.woff`),
  );
}

/** A piece of text that one file has all letters of. */
export interface Piece {
  /** The file, and under which name paper knows it. */
  readonly file: string;
  readonly font: fontkit.Font;
  readonly text: string;
}

interface FaceFile {
  readonly file: string;
  readonly font: fontkit.Font;
}

const opened = new Map<Face, readonly FaceFile[]>();

function faceOf(face: Face): readonly FaceFile[] {
  const known = opened.get(face);
  if (known) return known;
  const read = FILES[face].map((file) => ({ file, font: fontkit.openSync(file) as fontkit.Font }));
  opened.set(face, read);
  return read;
}

/** What stands for a letter that no file has. */
const MISSING = '?';

/** What the fonts lack and people write all the same, in letters that they have. */
const WRITTEN: Readonly<Record<string, string>> = {
  ...{ '→': '->', '←': '<-', '↔': '<->', '≥': '>=', '≤': '<=', '≠': '!=', '✓': 'v' },
  ...{ Ω: 'Ohm', µ: 'u', μ: 'u', '\t': ' ', '\u00a0': ' ', '\u2011': '-', '\u200b': '' },
};

/**
 * The text in pieces, each of one file.
 * @param missing told of every letter that no file has
 */
export function piecesOf(
  text: string,
  face: Face,
  missing: (letter: string) => void = () => undefined,
): readonly Piece[] {
  const all = faceOf(face);
  const pieces: { file: FaceFile; text: string }[] = [];
  const put = (letter: string): void => {
    const has = all.find(({ font }) => font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0));
    if (!has) {
      const written = WRITTEN[letter];
      if (written === undefined) missing(letter);
      return void [...(written ?? MISSING)].forEach(put);
    }
    const last = pieces.at(-1);
    if (last?.file === has) last.text += letter;
    else pieces.push({ file: has, text: letter });
  };
  [...text.normalize('NFC')].forEach(put);
  return pieces.map((one) => ({ ...one.file, text: one.text }));
}

/** How wide a text is, in the unit of its size. */
export const widthOf = (text: string, face: Face, size: number): number =>
  piecesOf(text, face).reduce(
    (sum, { font, text: piece }) =>
      sum + (font.layout(piece).advanceWidth / font.unitsPerEm) * size,
    0,
  );

/** The text in lines that are no wider; a word that has no room in a line of its own is broken. */
export function linesOf(text: string, face: Face, size: number, width: number): readonly string[] {
  return text.split(/\r\n|\r|\n/).flatMap((paragraph) => {
    const lines: string[] = [];
    let line = '';
    for (const word of paragraph.split(' ').flatMap((one) => broken(one, face, size, width))) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (line === '' || widthOf(longer, face, size) <= width) line = longer;
      else {
        lines.push(line);
        line = word;
      }
    }
    return [...lines, line];
  });
}

function broken(word: string, face: Face, size: number, width: number): readonly string[] {
  if (widthOf(word, face, size) <= width) return [word];
  const parts: string[] = [];
  let part = '';
  for (const letter of word) {
    if (part !== '' && widthOf(part + letter, face, size) > width) {
      parts.push(part);
      part = '';
    }
    part += letter;
  }
  return [...parts, part];
}

/** What differs by less is the same: sizes are computed from widths and back. */
const SAME = 1e-6;

/** The text cut in its middle, where numbers are rarely, so that it has room. */
export function cutToFit(text: string, face: Face, size: number, width: number): string {
  const letters = [...text];
  for (let kept = letters.length; kept > 1; kept -= 1) {
    const cut =
      kept === letters.length
        ? text
        : `${letters.slice(0, Math.ceil(kept / 2)).join('')}…${letters.slice(-Math.floor(kept / 2)).join('')}`;
    if (widthOf(cut, face, size) <= width + SAME) return cut;
  }
  return '…';
}
