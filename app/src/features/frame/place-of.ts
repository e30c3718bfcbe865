import type { Place } from '../../parts';

const PLACES: readonly string[] = ['plan', 'assign', 'prove', 'hand-over'] satisfies Place[];

/**
 * Which of the four places a page belongs to: the group that its route file is in. What belongs to the wire has no place:
 * the link line above leads there.
 * @param segments of the route, as the router has them: `['job', '[job]', '(assign)', 'call', '[interface]']`
 */
export function placeOf(segments: readonly string[]): Place | undefined {
  const group = segments.find((one) => one.startsWith('('))?.slice(1, -1) ?? '';
  return PLACES.includes(group) ? (group as Place) : undefined;
}
