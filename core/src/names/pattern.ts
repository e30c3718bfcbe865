import { ok, refuse, type Result } from '../net';
import { toHostLabel } from './convert';

/** What a pattern of names can be made of. */
const PATTERN_PARTS = ['area', 'cabinet', 'position', 'role', 'stem', 'last', 'switch'] as const;

type PatternPart = (typeof PATTERN_PARTS)[number];
export type PatternValues = Readonly<Partial<Record<PatternPart, string>>>;

type Piece =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'part'; readonly part: PatternPart; readonly width: number }
  | { readonly kind: 'number'; readonly width: number };

/** A pattern read once and used for many names. */
export interface NamePattern {
  readonly text: string;
  readonly pieces: readonly Piece[];
}

/**
 * Reads a pattern: words in braces stand for a value of the device, `{n}` for a running number; the
 * number of letters n, or a number after a colon, is the least number of digits.
 * @example parsePattern('{cabinet}-{stem}-{nn}') // 'fh2-drive-07'
 * @returns refusals `pattern.empty`, `pattern.brace`, `pattern.word`
 */
export function parsePattern(text: string): Result<NamePattern> {
  if (text.trim() === '') return refuse('pattern.empty', text);
  const pieces: Piece[] = [];
  let rest = text;
  while (rest !== '') {
    const literal = /^[^{}]+/.exec(rest)?.[0];
    if (literal !== undefined) {
      pieces.push({ kind: 'text', text: literal });
      rest = rest.slice(literal.length);
      continue;
    }
    const braced = /^\{([a-z]+)(?::([1-9]))?\}/.exec(rest);
    if (!braced) return refuse('pattern.brace', rest.slice(0, 12));
    const [whole, word = '', digits] = braced;
    const part = PATTERN_PARTS.find((one) => one === word);
    if (/^n+$/.test(word))
      pieces.push({ kind: 'number', width: digits ? Number(digits) : word.length });
    else if (part) pieces.push({ kind: 'part', part, width: Number(digits ?? 1) });
    else return refuse('pattern.word', word, { words: PATTERN_PARTS.join(', ') });
    rest = rest.slice(whole.length);
  }
  return ok({ text, pieces });
}

/**
 * The name of a pattern for one device, with the lowest running number that is not taken. Where the
 * pattern has no number, one is put behind a name that is taken: nothing collides silently.
 */
export function nameByPattern(
  pattern: NamePattern,
  values: PatternValues,
  taken: ReadonlySet<string>,
): string {
  const hasNumber = pattern.pieces.some((piece) => piece.kind === 'number');
  for (let number = 1; ; number += 1) {
    const made = pattern.pieces.map((piece) => written(piece, values, number)).join('');
    const base = tidy(made) || 'device';
    const name = hasNumber || number === 1 ? base : `${base}-${number}`;
    if (!taken.has(name)) return name;
  }
}

function written(piece: Piece, values: PatternValues, number: number): string {
  if (piece.kind === 'text') return piece.text;
  if (piece.kind === 'number') return String(number).padStart(piece.width, '0');
  const value = values[piece.part] ?? '';
  return /^[0-9]+$/.test(value) ? value.padStart(piece.width, '0') : toHostLabel(value);
}

/** Separators that stand where a value is empty go. A pattern of empty values gives `device`. */
const tidy = (name: string): string =>
  name
    .toLowerCase()
    .replace(/-{2,}/g, '-')
    .replace(/\.{2,}/g, '.')
    .replace(/^[-.]+|[-.]+$/g, '');
