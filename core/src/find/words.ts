/** The words that somebody looks for, in small letters. */
export const wordsOf = (wanted: string): readonly string[] =>
  wanted
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');

/** At least four hex digits, whatever stands between them; undefined where it is no part of a MAC. */
export function macDigitsOf(text: string): string | undefined {
  const digits = text.toLowerCase().replace(/[\s:.-]/g, '');
  return /^[0-9a-f]{4,12}$/.test(digits) ? digits : undefined;
}
