import { fireEvent, waitFor } from '@testing-library/react';
import type { RoundTimes } from '@ipsonomo/core/api';
import { HowLongScreen } from '../../src/features/calls/how-long/HowLongScreen';
import { deviceInfo, jobView, show } from '../world';

// How long a round takes, in the words of whoever plans a day.

const TIMES: RoundTimes = {
  ...{ calls: 40, people: 1, seconds: 7_380 },
  persons: [
    {
      ...{ worked: 5_000, walked: 600, doneAt: 7_380 },
      waited: { device: 1_500, laptop: 280, factory: 0 },
    },
  ],
  cabinets: [
    { area: 'Filter hall', cabinet: 'FH2', calls: 39, seconds: 7_000 },
    { area: '', cabinet: '', calls: 1, seconds: 20 },
  ],
  waited: { device: 1_500, laptop: 280, factory: 0 },
  savings: [
    ['bound', 800],
    ['person', 60],
  ],
};

const open = (times: RoundTimes) =>
  show(<HowLongScreen job="job" />, {
    job: jobView([deviceInfo()]),
    also: [['/round/times', times]],
  });

test('the whole, what holds it up, what would be quicker, and each cabinet', async () => {
  const { findByText, getByText, queryByText } = open(TIMES);
  expect(await findByText('It takes about 2 h 3 min')).toBeTruthy();
  expect(getByText('25 min')).toBeTruthy();
  expect(getByText('All MACs bound at the desk: 13 min less')).toBeTruthy();
  expect(getByText('Filter hall, FH2, 39 calls')).toBeTruthy();
  expect(getByText('–, 1 call')).toBeTruthy();
  // Nobody waited for that, and one person needs no list of persons.
  expect(queryByText(/same factory address/)).toBeNull();
  expect(queryByText('By person')).toBeNull();
});

test('it is played anew for so many people as are chosen', async () => {
  const { findByText, getByLabelText, calls } = open(TIMES);
  await findByText('It takes about 2 h 3 min');
  fireEvent.click(getByLabelText('3 people'));
  await waitFor(() => expect(calls.at(-1)?.body).toMatchObject({ people: 3 }));
});

test('where no call is left it says so', async () => {
  const nothing = { ...TIMES, calls: 0, cabinets: [], savings: [], seconds: 0 };
  const { findByText, queryByText } = open(nothing);
  expect(await findByText('No call is left.')).toBeTruthy();
  expect(queryByText('By cabinet')).toBeNull();
});
