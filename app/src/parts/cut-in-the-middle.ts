/** A name that is too long, cut in its middle: what tells devices and halls apart is the number at the end. */
export function cutInTheMiddle(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.split(' ').at(-1)?.slice(-8) ?? '';
  return `${text.slice(0, most - last.length - 2).trimEnd()}… ${last}`;
}
