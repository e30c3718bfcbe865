import type { Edit, EditConflict } from '@ipsonomo/core/plan';
import { canBeMine, conflictKey, settle } from '../../src/features/plan/conflict/settle';

const set = (id: string, field: string, from: string, to: string): Edit => ({
  ...{ op: 'set', type: 'device', id, field, from, to },
});
const conflict = (id: string, field: string, theirs: string | undefined): EditConflict => ({
  ...{ type: 'device', id, field, base: 'old', theirs, mine: 'new' },
});
const edits = [
  set('a', 'title', 'old', 'new'),
  set('b', 'title', 'old', 'new'),
  set('c', 'note', '', 'x'),
];
const both = [conflict('a', 'title', 'other'), conflict('b', 'title', 'other')];

test('mine goes over what is there now, theirs stays, the rest is as it was', () => {
  const choices = new Map([
    ['device|a|title', 'mine'],
    ['device|b|title', 'theirs'],
  ] as const);
  expect(both.map(conflictKey)).toEqual([...choices.keys()]);
  expect(settle(edits, both, choices)).toEqual([
    set('a', 'title', 'other', 'new'),
    set('c', 'note', '', 'x'),
  ]);
});

test('what is gone cannot be mine', () => {
  const gone = conflict('a', 'title', undefined);
  expect(canBeMine(gone)).toBe(false);
  expect(settle([set('a', 'title', 'old', 'new')], [gone], new Map())).toEqual([]);
});
