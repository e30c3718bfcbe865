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

/** A letter as a face has it; a page of labels asks for the same few thousands of times. */
interface Letter {
  readonly file: FaceFile;
  /** In the unit of the size. */
  readonly advance: number;
}

const letters = new Map<string, Letter | undefined>();

function letterOf(letter: string, face: Face): Letter | undefined {
  const key = `${face} ${letter}`;
  if (letters.has(key)) return letters.get(key);
  const point = letter.codePointAt(0) ?? 0;
  const file = faceOf(face).find(({ font }) => font.hasGlyphForCodePoint(point));
  const found = file && {
    file,
    advance: file.font.glyphForCodePoint(point).advanceWidth / file.font.unitsPerEm,
  };
  letters.set(key, found);
  return found;
}

/** The letters of a text as they can be written. @param missing told of every letter that no file has */
function written(text: string, face: Face, missing: (letter: string) => void): readonly string[] {
  return [...text.normalize('NFC')].flatMap((letter) => {
    if (letterOf(letter, face)) return [letter];
    const instead = WRITTEN[letter];
    if (instead === undefined) missing(letter);
    return [...(instead ?? MISSING)];
  });
}

const NOBODY = () => undefined;

/**
 * The text in pieces, each of one file.
 * @param missing told of every letter that no file has
 */
export function piecesOf(
  text: string,
  face: Face,
  missing: (letter: string) => void = NOBODY,
): readonly Piece[] {
  const pieces: { file: FaceFile; text: string }[] = [];
  for (const letter of written(text, face, missing)) {
    const has = letterOf(letter, face)?.file;
    const last = pieces.at(-1);
    if (last && last.file === has) last.text += letter;
    else if (has) pieces.push({ file: has, text: letter });
  }
  return pieces.map((one) => ({ ...one.file, text: one.text }));
}

const widths = new Map<string, number>();
const MOST_WIDTHS = 20_000;

/** How wide a text is, in the unit of its size; letters that are moved together make it no wider. */
export function widthOf(text: string, face: Face, size: number): number {
  const key = `${face} ${text}`;
  let width = widths.get(key);
  if (width === undefined) {
    width = written(text, face, NOBODY).reduce(
      (sum, letter) => sum + (letterOf(letter, face)?.advance ?? 0),
      0,
    );
    if (widths.size >= MOST_WIDTHS) widths.clear();
    widths.set(key, width);
  }
  return width * size;
}

/** The text in lines that are no wider; a word that has no room in a line of its own is broken. */
export function linesOf(text: string, face: Face, size: number, width: number): readonly string[] {
  const space = widthOf(' ', face, size);
  return text.split(/\r\n|\r|\n/).flatMap((paragraph) => {
    const lines: string[] = [];
    let line = '';
    let used = 0;
    for (const word of paragraph.split(' ').flatMap((one) => broken(one, face, size, width))) {
      const more = widthOf(word, face, size);
      if (line === '' || used + space + more <= width) {
        used = line === '' ? more : used + space + more;
        line = line === '' ? word : `${line} ${word}`;
      } else {
        lines.push(line);
        [line, used] = [word, more];
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
