import type { Place } from '../../parts';

/** By the first part of a page's path below its job. What belongs to the wire has no place: the link line above leads there. */
export const PLACES: Readonly<Record<string, Place | 'wire'>> = {
  plan: 'plan',
  device: 'plan',
  'new-subnet': 'plan',
  'new-devices': 'plan',
  snags: 'plan',
  revisions: 'plan',
  block: 'plan',
  subnet: 'plan',
  copy: 'plan',
  kinds: 'plan',
  thing: 'plan',
  import: 'plan',
  assign: 'assign',
  call: 'assign',
  swap: 'assign',
  desk: 'assign',
  prove: 'prove',
  causes: 'prove',
  routes: 'prove',
  lanes: 'prove',
  picture: 'prove',
  controller: 'prove',
  run: 'prove',
  runs: 'prove',
  vigil: 'prove',
  drill: 'prove',
  codes: 'prove',
  'there-and-back': 'prove',
  'hand-over': 'hand-over',
  wire: 'wire',
  cabinet: 'wire',
};

/** Which of the four places a page belongs to. @example placeOfPath('/job/7/call/3') // 'assign' */
export function placeOfPath(path: string): Place | undefined {
  const place = PLACES[path.split('/')[3] ?? ''];
  return place === 'wire' ? undefined : place;
}
