import { ok, refuse, type Result } from '../net';

/** @example toHex(Uint8Array.of(1, 255)) // '01ff' */
export const toHex = (bytes: Uint8Array): string => {
  let text = '';
  for (const byte of bytes) text += byte.toString(16).padStart(2, '0');
  return text;
};

/**
 * Reads hex digits, with white space, `:` or `-` between them wherever they stand.
 * @returns refusals `hex.empty`, `hex.letter` (the first that is none), `hex.odd`
 */
export function parseHex(text: string): Result<Uint8Array> {
  const digits = text.replace(/[\s:-]/g, '');
  if (digits === '') return refuse('hex.empty', text);
  const letter = /[^0-9a-f]/i.exec(digits)?.[0];
  if (letter !== undefined) return refuse('hex.letter', letter);
  if (digits.length % 2 !== 0) return refuse('hex.odd', text, { have: digits.length });
  return ok(
    Uint8Array.from({ length: digits.length / 2 }, (_, i) =>
      parseInt(digits.slice(2 * i, 2 * i + 2), 16),
    ),
  );
}
