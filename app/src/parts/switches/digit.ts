/** What is printed beside a position: sixteen and fewer are hex digits, more are numbers. */
export const digitOf = (position: number, positions: number): string =>
  positions <= 16 ? position.toString(16).toUpperCase() : String(position);
