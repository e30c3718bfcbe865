import { fireEvent, waitFor, within } from '@testing-library/react';
import type { FoundMistake, JobSummary, RehearsalView } from '@ipsonomo/core/api';
import { RehearsalScreen } from '../../src/features/wire/rehearsal/RehearsalScreen';
import { WireScreen } from '../../src/features/wire/WireScreen';
import { deviceInfo, FIELD, jobView, show } from '../world';

// R-REHEARSE as a person meets it: begun on the page of the wire, searched, ended.

const REHEARSAL: RehearsalView = {
  of: { id: 'own', name: 'Tern Cove hatchery', revision: 12 },
  ...{ seed: 77, begunAt: 1_000_000, endedAt: null, mistakes: 2, found: [], wrongClaims: 0 },
  ...{ missed: [], unrehearsed: [] },
};
const JOB = jobView([deviceInfo()]);
const FOUND: FoundMistake = {
  ...{ id: 'cable-out at', kind: 'cable-out', interfaceId: 'at' },
  ...{ person: 'Mara Quist', at: 1_000_000 + 9 * 60_000 },
};

const open = (fields: Partial<RehearsalView> = {}, claimed: unknown = { isRight: true }) =>
  show(<RehearsalScreen job="job" />, {
    job: JOB,
    also: [
      ['/rehearsal/claims', claimed],
      ['/rehearsal', { ...REHEARSAL, ...fields }],
    ],
  });

test('a plan without mistakes is only rehearsed: nothing is asked about', async () => {
  const { findByText, queryByText } = open({ mistakes: 0 });
  expect(await findByText('Rehearsal of Tern Cove hatchery')).toBeTruthy();
  expect(await findByText('No mistakes were put into it.')).toBeTruthy();
  expect(queryByText('What is wrong?')).toBeNull();
  expect(queryByText('End the search and see the rest')).toBeNull();
});

test.each([
  [true, 'It was put right on the site, as somebody would have done.'],
  [false, 'Nothing of the kind is wrong there'],
])(
  'what somebody names is held against the site: %s',
  async (isRight, told) => {
    const { findByText, findByRole, getByText, calls } = open({}, { isRight });
    // To look for a role takes seconds on a loaded machine.
    const SLOW = { timeout: 15_000 };
    const say = async (box: RegExp, option: string) => {
      fireEvent.click(await findByRole('combobox', { name: box }, SLOW));
      fireEvent.click(await findByRole('option', { name: option }, SLOW));
    };
    await findByText('2 mistakes are in it; none was found.');
    await say(/^Mistake/, 'Its cable is out');
    await say(/^At which device/, 'Drum filter drive 1');
    fireEvent.click(getByText('That is wrong'));
    expect(await findByText(told)).toBeTruthy();
    expect(calls[0]).toMatchObject({
      ...{ method: 'POST', path: '/api/jobs/job/rehearsal/claims' },
      body: { kind: 'cable-out', interfaceId: 'at' },
    });
  },
  60_000,
);

test('who found what after how long, and what cannot be rehearsed', async () => {
  const { findByText, getByText } = open({
    ...{ found: [FOUND], wrongClaims: 3 },
    unrehearsed: [{ interfaceId: 'at', why: 'no-relay' }],
  });
  expect(await findByText('Its cable is out: Drum filter drive 1')).toBeTruthy();
  expect(getByText('found by Mara Quist, 9 minutes after the beginning')).toBeTruthy();
  expect(getByText('3 times somebody named what was not wrong.')).toBeTruthy();
  expect(
    getByText('Drum filter drive 1: asks, but no switch here says through which port'),
  ).toBeTruthy();
});

test('the end is asked about before, and tells the rest', async () => {
  const { findByText, getByText, queryByText, calls } = open();
  fireEvent.click(await findByText('End the search and see the rest'));
  fireEvent.click(getByText('Search on'));
  expect(queryByText('Yes, end the search')).toBeNull();
  fireEvent.click(getByText('End the search and see the rest'));
  fireEvent.click(getByText('Yes, end the search'));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]?.path).toBe('/api/jobs/job/rehearsal/end');
});

test('one that has ended says what was missed and by which number it can be had again', async () => {
  const lender = { id: 'lending-router ', kind: 'lending-router', interfaceId: '' } as const;
  const { findByText, queryByText } = open({ endedAt: 2_000_000, missed: [lender] });
  expect(await findByText('Not found')).toBeTruthy();
  expect(
    await findByText('Somebody plugged in a device that gives addresses to everybody'),
  ).toBeTruthy();
  expect(await findByText(/Made from the number 77/)).toBeTruthy();
  expect(queryByText('What is wrong?')).toBeNull();
});

const NO_SITE = { counts: null, hasPracticeSite: false };

const JOBS: readonly JobSummary[] = [
  { id: 'job', name: 'Tern Cove hatchery', rehearses: null, archived: false, ...NO_SITE },
  {
    id: 'one',
    name: 'Rehearsal of Tern Cove hatchery',
    rehearses: { id: 'job', name: 'Tern Cove hatchery' },
    archived: false,
    ...NO_SITE,
  },
];

test('the page of the wire begins one with so many mistakes, and says how many there are', async () => {
  const { findByText, getByRole, getByText, calls } = show(<WireScreen job="job" />, {
    ...{ field: { ...FIELD, runId: null }, jobs: JOBS },
    also: [
      ['/rehearsals', { id: 'new' }],
      ['/adapters', []],
    ],
  });
  expect(await findByText('1 rehearsal of it is among the jobs.')).toBeTruthy();
  fireEvent.click(within(getByRole('radiogroup', { name: 'Mistakes to find' })).getByText('Five'));
  fireEvent.click(getByText('Begin the rehearsal'));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]).toMatchObject({
    ...{ path: '/api/jobs/job/rehearsals', body: { wish: { kind: 'surprise', count: 5 } } },
  });
});

test('a rehearsal has its own site for a wire, and no adapter', async () => {
  const { findByText, queryByText } = show(<WireScreen job="job" />, {
    ...{ field: { ...FIELD, source: 'rehearsal', runId: null } },
    jobs: JOBS.map((one) => ({ ...one, rehearses: { id: 'own', name: 'Another' } })),
    also: [['/adapters', [{ name: 'eth0', addresses: [], job: null }]]],
  });
  expect(await findByText('The site of this plan')).toBeTruthy();
  expect(queryByText('eth0')).toBeNull();
  expect(queryByText('Rehearse this plan')).toBeNull();
});
