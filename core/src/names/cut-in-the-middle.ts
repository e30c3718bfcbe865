/**
 * A name that is too long, cut in its middle: what tells devices and halls apart is the number at the end.
 * @param most letters, as people count them in code points
 */
export function cutInTheMiddle(text: string, most: number): string {
  const letters = [...text];
  if (letters.length <= most) return text;
  const last = [...(text.split(' ').at(-1) ?? '')].slice(-8);
  const first = letters.slice(0, Math.max(0, most - last.length - 2)).join('');
  return `${first.trimEnd()}… ${last.join('')}`;
}
