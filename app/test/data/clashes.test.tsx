import type { RevisionEdits } from '@ipsonomo/core/api';
import type { Edit, Plan } from '@ipsonomo/core/plan';
import { snagsOf } from '@ipsonomo/core/snags';
import { ChangeWatch } from '../../src/data/clashes';
import { deviceInfo, jobView, planOfView } from '../world';

// Two devices; I am the one who holds the first. Whoever comes second, both pages have to tell.

const planWith = (first: string, second: string): Plan =>
  planOfView(
    jobView([
      deviceInfo({ id: 'a', name: 'drive-a' }, { id: 'a-at', address: first }),
      deviceInfo({ id: 'b', name: 'drive-b' }, { id: 'b-at', address: second }),
    ]),
  );

const moved = (id: string, to: string): Edit => ({
  ...{ op: 'set', type: 'interface', id, field: 'address', from: '172.22.40.80', to },
});
const theirs = (number: number, ...edits: readonly Edit[]): RevisionEdits => ({
  ...{ number, person: 'Tilda', edits },
});

const [APART, HALF, SAME] = [
  planWith('172.22.40.85', '172.22.40.86'),
  planWith('172.22.40.88', '172.22.40.86'),
  planWith('172.22.40.88', '172.22.40.88'),
];
const MINE = moved('a-at', '172.22.40.88');
const THEIRS = moved('b-at', '172.22.40.88');

const told = (watch: ChangeWatch, plan: Plan) =>
  watch.clashes(plan).map(({ snag, people }) => [snag.rule, people]);

test('mine first, theirs second', () => {
  const watch = new ChangeWatch();
  watch.look(snagsOf(APART));
  watch.noteMine(2, [MINE]);
  watch.look(snagsOf(HALF));
  expect(told(watch, HALF)).toEqual([]);
  watch.noteRead([theirs(3, THEIRS)]);
  watch.look(snagsOf(SAME));
  expect(told(watch, SAME)).toEqual([['S-ADDRESS-TWICE', ['Tilda']]]);
});

test('theirs first and read with mine, whose answer comes after', () => {
  const watch = new ChangeWatch();
  watch.look(snagsOf(APART));
  watch.noteRead([theirs(2, THEIRS), { number: 3, person: 'Mara', edits: [MINE] }]);
  watch.look(snagsOf(SAME));
  expect(told(watch, SAME)).toEqual([]);
  watch.noteMine(3, [MINE]);
  expect(told(watch, SAME)).toEqual([['S-ADDRESS-TWICE', ['Tilda']]]);
});

test.each<[what: string, act: (watch: ChangeWatch) => void]>([
  ['mine alone', (watch) => watch.noteMine(2, [MINE, THEIRS])],
  ['theirs alone', (watch) => watch.noteRead([theirs(2, MINE, THEIRS)])],
  [
    'mine, and something of theirs elsewhere',
    (watch) => {
      watch.noteMine(2, [MINE]);
      watch.noteRead([theirs(3, moved('c-at', '172.22.40.99'))]);
    },
  ],
])('%s is no clash', (_what, act) => {
  const watch = new ChangeWatch();
  watch.look(snagsOf(APART));
  act(watch);
  watch.look(snagsOf(SAME));
  expect(told(watch, SAME)).toEqual([]);
});

test('what was wrong before is none, and one that was mended is told no longer', () => {
  const watch = new ChangeWatch();
  watch.look(snagsOf(SAME));
  watch.noteMine(2, [MINE]);
  watch.noteRead([theirs(3, THEIRS)]);
  watch.look(snagsOf(SAME));
  expect(told(watch, SAME)).toEqual([]);
  watch.look(snagsOf(APART));
  watch.look(snagsOf(SAME));
  expect(told(watch, SAME)).toHaveLength(1);
  watch.look(snagsOf(APART));
  expect(told(watch, APART)).toEqual([]);
});
