import { fireEvent, waitFor } from '@testing-library/react';
import type { KindsElsewhere } from '@ipsonomo/core/api';
import { KindsScreen } from '../../src/features/kinds/KindsScreen';
import { CallPane } from '../../src/features/calls/call/CallPane';
import { deviceInfo, jobView, show } from '../world';

const elsewhere: readonly KindsElsewhere[] = [
  {
    ...{ job: 'other', name: 'Quay crane' },
    kinds: [
      { id: 'a', maker: 'Own', name: 'Valve A', orderNumber: '', revision: '', state: 'new' },
      { id: 'b', maker: 'Own', name: 'Valve B', orderNumber: '', revision: '', state: 'new' },
      { id: 'c', maker: 'Own', name: 'Valve C', orderNumber: '', revision: '', state: 'other' },
    ],
  },
];

test('R-KINDS-SHARED: what other jobs have is taken one by one or all at once', async () => {
  const screen = show(<KindsScreen job="job" />, {
    job: jobView([deviceInfo()]),
    also: [
      ['kinds-elsewhere', elsewhere],
      ['jobs/job/kinds', { taken: 2, kept: ['Valve C'] }],
    ],
  });
  await screen.findByText('Kinds of the job Quay crane');
  screen.getByText(/left as they are: Valve C/);
  fireEvent.click(screen.getByLabelText('Take it: Valve B'));
  await waitFor(() => expect(screen.calls).toHaveLength(1));
  expect(screen.calls[0]?.body).toEqual({ from: 'other', kinds: ['b'] });
  await screen.findByText('2 kinds are in the plan now');
  fireEvent.click(screen.getByText('Take all 2'));
  await waitFor(() => expect(screen.calls).toHaveLength(2));
  expect(screen.calls[1]?.body).toEqual({ from: 'other', kinds: ['a', 'b'] });
});

test('R-CARD: the call shows what stands on the card, and where it goes', () => {
  const rack = deviceInfo({ kindId: 'osterhew-controller-r', way: 'card', name: 'fh2-rack-1' });
  const screen = show(<CallPane job="job" id="at" />, { job: jobView([rack]) });
  screen.getByText('Its card gets this file: network.cfg');
  screen.getByText(/address = 172\.22\.40\.85\s+mask = 255\.255\.255\.0\s+router = 172\.22\.40\.1/);
  screen.getByText('Save network.cfg');
});
