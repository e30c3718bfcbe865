import { act } from '@testing-library/react';
import type { ProofDetailView, ProofView } from '@ipsonomo/core/api';
import { RevisionsScreen } from '../../src/features/plan/revisions/RevisionsScreen';
import { RunScreen } from '../../src/features/prove/runs/RunScreen';
import { RunsScreen } from '../../src/features/prove/runs/RunsScreen';
import { ThereAndBackScreen } from '../../src/features/routes/ThereAndBackScreen';
import { TwoColumns, Words } from '../../src/parts';
import { deviceInfo, jobView, show } from '../world';

// Where there is room a list and one of it stand side by side; on a phone one of them has the page.

const width = (pixels: number) =>
  act(() => {
    Object.defineProperty(document.documentElement, 'clientWidth', {
      ...{ configurable: true, value: pixels },
    });
    window.dispatchEvent(new Event('resize'));
  });
afterEach(() => width(1024));

const PATIENCE = { timeout: 20_000 };

const run: ProofView = {
  ...{ id: 'one', source: 'practice', person: 'Mara Quist', revision: 4, scope: 'cabinet FH2' },
  ...{ startedAt: 1_700_000_000_000, endedAt: 1_700_000_060_000, how: 'done', total: 1 },
  ...{ proven: 1, contradicted: 0, silent: 0, strangers: 0 },
};
const detail = {
  ...run,
  ...{ interfaceIds: ['at'], results: [], strangers: [] },
} as unknown as ProofDetailView;
const revision = (number: number) => ({
  ...{ number, at: '2026-11-30T10:00:00Z', person: 'Mara Quist', what: `change ${number}` },
  ...{ name: null, undoes: null, count: 1 },
});

const job = jobView([deviceInfo()]);
const also = [
  ['/proofs/one', detail],
  ['/proofs', [run]],
  ['/edits', { revision: 1, lastNamed: 0, revisions: [] }],
  ['/revisions', [revision(2), revision(1)]],
] as const;

/** Of each page: what its list says, what the one beside it says, and which of them a phone shows. */
const PAGES: readonly (readonly [string, React.ReactElement, RegExp, RegExp, 'list' | 'one'])[] = [
  ['kept runs', <RunsScreen key="1" job="job" />, /^Kept runs$/, /^Run of /, 'list'],
  ['one run', <RunScreen key="2" job="job" id="one" />, /^Kept runs$/, /^Run of /, 'one'],
  ['revisions', <RevisionsScreen key="3" job="job" />, /^Revisions$/, /^Since revision 1/, 'list'],
  [
    'one connection',
    <ThereAndBackScreen key="4" job="job" from="drive" to="nobody" />,
    /^Routes there and back$/,
    /^There and back$/,
    'one',
  ],
];

test.each(PAGES)('%s', async (_, page, list, one, alone) => {
  width(1280);
  // By their words: to look for roles takes this browser seconds a page.
  const { findByText, queryByText } = show(page, { job, also });
  expect(await findByText(list, {}, PATIENCE)).toBeTruthy();
  expect(await findByText(one, {}, PATIENCE)).toBeTruthy();
  width(390);
  expect(queryByText(list) !== null).toBe(alone === 'list');
  expect(queryByText(one) !== null).toBe(alone === 'one');
});

test('two parts of a page are side by side where there is room, else the second is below', () => {
  const { getByText } = show(
    <TwoColumns second={<Words>second</Words>}>
      <Words>first</Words>
    </TwoColumns>,
  );
  const direction = () => {
    const both = getByText('first').parentElement?.parentElement;
    return both && getComputedStyle(both).flexDirection;
  };
  width(1280);
  expect(direction()).toBe('row');
  width(390);
  expect(direction()).toBe('column');
  expect(getByText('first').compareDocumentPosition(getByText('second'))).toBe(
    Node.DOCUMENT_POSITION_FOLLOWING,
  );
});
