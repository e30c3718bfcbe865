import { fireEvent, waitFor } from '@testing-library/react';
import type { JobSummary } from '@ipsonomo/core/api';
import { JobsScreen } from '../../src/features/start/jobs/JobsScreen';
import { FIELD, show } from '../world';

// The list of jobs: what is left in each, and who listens where.

const jobs = [
  { id: 'job', name: 'Tern Cove hatchery', rehearses: null, archived: false, counts: null },
  { id: 'other', name: 'Bottling line 3', rehearses: null, archived: false, counts: null },
] as unknown as readonly JobSummary[];

test('wires on which somebody listens stand first, each with its job, and one touch ends all that is sent', async () => {
  const answering = { ...FIELD, jobId: 'other', source: 'live:eth0', answers: 3 };
  const wires = [FIELD, { ...answering, answeringUntil: FIELD.now + 60_000 }];
  const { findByText, getByText, calls } = show(<JobsScreen />, { jobs, wires });
  expect(await findByText('Practice site · silent, listening')).toBeTruthy();
  expect(getByText(/eth0 · Answering 3 devices/)).toBeTruthy();
  fireEvent.click(getByText('Fall silent on every wire'));
  await waitFor(() => expect(calls).toEqual([{ method: 'POST', path: '/api/silence', body: {} }]));
});

test('where nobody listens nothing is said of wires', async () => {
  const { findAllByText, queryByText } = show(<JobsScreen />, {
    jobs,
    wires: [{ ...FIELD, runId: null }],
  });
  expect(await findAllByText('what is left is being counted')).toHaveLength(2);
  expect(queryByText('Listening now')).toBeNull();
});

test('archived jobs stand apart, once somebody asks for them', async () => {
  const [first, second] = jobs;
  const { findByText, getByText, queryByText } = show(<JobsScreen />, {
    jobs: [first, { ...second, archived: true }] as unknown as readonly JobSummary[],
  });
  fireEvent.click(await findByText('Show 1 archived job'));
  expect(getByText('Bottling line 3')).toBeTruthy();
  fireEvent.click(getByText('Hide the archived jobs'));
  expect(queryByText('Bottling line 3')).toBeNull();
});
