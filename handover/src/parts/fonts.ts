import { readFileSync } from 'node:fs';
import * as fontkit from 'fontkit';
import { sfntOf } from './sfnt';

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

/** One of the files of a face, read. */
interface FaceFile {
  /** Its path, and under which name paper knows it. */
  readonly file: string;
  /** As paper embeds it. */
  readonly bytes: Buffer;
  readonly font: fontkit.Font;
}

/** A piece of text that one file has all letters of. */
export interface Piece extends FaceFile {
  readonly text: string;
}

const opened = new Map<Face, readonly FaceFile[]>();

function faceOf(face: Face): readonly FaceFile[] {
  const known = opened.get(face);
  if (known) return known;
  const read = FILES[face].map((file) => {
    const bytes = sfntOf(readFileSync(file));
    return { file, bytes, font: fontkit.create(bytes) as fontkit.Font };
  });
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

const letters: Readonly<Record<Face, Map<string, Letter | undefined>>> = {
  ...{ sans: new Map(), bold: new Map(), mono: new Map() },
};

function letterOf(letter: string, face: Face): Letter | undefined {
  const known = letters[face].get(letter);
  if (known || letters[face].has(letter)) return known;
  const point = letter.codePointAt(0) ?? 0;
  const file = faceOf(face).find(({ font }) => font.hasGlyphForCodePoint(point));
  const found = file && {
    file,
    advance: file.font.glyphForCodePoint(point).advanceWidth / file.font.unitsPerEm,
  };
  letters[face].set(letter, found);
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

/** A text as a face sets it, letter after letter. */
interface Line {
  readonly pieces: readonly Piece[];
  /** In the unit of the size. */
  readonly width: number;
  /** Letters that no file has. */
  readonly missing: readonly string[];
}

/** What stands on many labels and cards is set once. */
const lines: Readonly<Record<Face, Map<string, Line>>> = {
  ...{ sans: new Map(), bold: new Map(), mono: new Map() },
};
const MOST_LINES = 20_000;

function lineOf(text: string, face: Face): Line {
  const kept = lines[face];
  const known = kept.get(text);
  if (known) return known;
  const line = plainLine(text, face) ?? anyLine(text, face);
  if (kept.size >= MOST_LINES) kept.clear();
  kept.set(text, line);
  return line;
}

/** The letters of ASCII, which are in the first file of every face, and nearly all that is written. */
const PLAIN = /^[ -~]+$/;

function plainLine(text: string, face: Face): Line | undefined {
  const [file] = faceOf(face);
  if (!file || !PLAIN.test(text)) return undefined;
  let width = 0;
  for (let at = 0; at < text.length; at += 1)
    width += letterOf(text.charAt(at), face)?.advance ?? 0;
  return { pieces: [{ ...file, text }], width, missing: [] };
}

function anyLine(text: string, face: Face): Line {
  const missing: string[] = [];
  const pieces: { file: FaceFile; text: string }[] = [];
  let width = 0;
  for (const letter of written(text, face, (one) => missing.push(one))) {
    const has = letterOf(letter, face);
    if (!has) continue;
    const last = pieces.at(-1);
    if (last && last.file === has.file) last.text += letter;
    else pieces.push({ file: has.file, text: letter });
    width += has.advance;
  }
  return { pieces: pieces.map((one) => ({ ...one.file, text: one.text })), width, missing };
}

/**
 * The text in pieces, each of one file.
 * @param missing told of every letter that no file has
 */
export function piecesOf(
  text: string,
  face: Face,
  missing?: (letter: string) => void,
): readonly Piece[] {
  const line = lineOf(text, face);
  if (missing) line.missing.forEach(missing);
  return line.pieces;
}

/** How wide a text is, in the unit of its size. */
export const widthOf = (text: string, face: Face, size: number): number =>
  lineOf(text, face).width * size;

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
