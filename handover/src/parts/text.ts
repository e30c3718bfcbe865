// Small words of text files.

/** One line whatever was typed: no line ends, no other control characters. */
export const oneLine = (text: string): string =>
  text.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029]+/g, ' ');

/** A cell that a spreadsheet would run as a formula is kept as the text it is. */
export const asText = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/** @example hexOf('ab') // '6162': the bytes of a DHCP name, one for each letter */
export const hexOf = (text: string): string =>
  [...text].map((letter) => letter.charCodeAt(0).toString(16).padStart(2, '0')).join('');

/** @example colons('6162') // '61:62' */
export const colons = (hex: string): string => (hex.match(/../g) ?? []).join(':');
