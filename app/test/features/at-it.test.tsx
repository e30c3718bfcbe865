import { fireEvent, waitFor } from '@testing-library/react';
import type { TakenCallView } from '@ipsonomo/core/api';
import { AtIt, SomebodyElse } from '../../src/features/calls/at-it/AtIt';
import { show } from '../world';

// R-AT-IT: who is at a device, as each of two sees it.

const taken = (fields: Partial<TakenCallView>): TakenCallView => ({
  ...{ interface: 'at', person: 'Ilse Brandt', isOwn: false },
  ...{ since: Date.now() - 60_000, until: Date.now() + 800_000, takenFrom: null },
  ...fields,
});

const open = (...calls: readonly TakenCallView[]) =>
  show(
    <>
      <SomebodyElse job="job" id="at" />
      <AtIt job="job" id="at" />
    </>,
    {
      also: [
        ['/taken-calls', calls],
        ['/taken', {}],
      ],
    },
  );

test('where nobody is at it, whoever goes there says so', async () => {
  const { findByText, calls } = open(taken({ interface: 'another' }));
  fireEvent.click(await findByText('I am at this device'));
  await waitFor(() =>
    expect(calls).toEqual([
      { method: 'POST', path: '/api/jobs/job/interfaces/at/taken', body: {} },
    ]),
  );
});

test('who is at it may leave', async () => {
  const { findByText, calls } = open(taken({ isOwn: true }));
  expect(await findByText(/^You are at this device since \d\d:\d\d/)).toBeTruthy();
  fireEvent.click(await findByText('I have left'));
  await waitFor(() => expect(calls[0]?.method).toBe('DELETE'));
});

test('whoever comes second sees who was first, and takes it over with a word and not without', async () => {
  const { findByText, getByText, getByLabelText, calls } = open(taken({}));
  expect(await findByText(/^Ilse Brandt is at this device since \d\d:\d\d/)).toBeTruthy();
  fireEvent.click(getByText('Take it over'));
  fireEvent.click(getByText('Take it over'));
  expect(calls).toEqual([]);
  fireEvent.change(getByLabelText('A word to Ilse Brandt'), {
    target: { value: 'I have its key' },
  });
  fireEvent.click(getByText('Take it over'));
  await waitFor(() => expect(calls[0]?.body).toEqual({ word: 'I have its key' }));
});

test('whoever it was taken from is told by whom, with their word', async () => {
  const takenFrom = { person: 'Mara Quist', isMe: true, word: 'I have its key' };
  const { findByText } = open(taken({ takenFrom }));
  expect(await findByText(/^Ilse Brandt took it over from you at/)).toBeTruthy();
  expect(await findByText('“I have its key”')).toBeTruthy();
});

test('a quarter of an hour after the last act nobody is at it', async () => {
  const { findByText, queryByText } = open(taken({ until: Date.now() - 1 }));
  expect(await findByText('I am at this device')).toBeTruthy();
  expect(queryByText(/is at this device since/)).toBeNull();
});
