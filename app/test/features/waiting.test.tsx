import { act, fireEvent, waitFor } from '@testing-library/react';
import { outbox, type WaitingAct } from '../../src/data';
import { HeldAtDoor, WaitingBar } from '../../src/features/waiting';
import { WaitingScreen } from '../../src/features/waiting/WaitingScreen';
import { deviceInfo, jobView, show } from '../world';

// What waits in a browser to be sent: told on every page, in its order, with what became of it.

const held = (fields: Partial<WaitingAct>): WaitingAct => ({
  ...{ place: 1, id: 'a', act: 'sayKept', params: { job: 'job', interface: 'at' }, body: {} },
  ...{ edits: [], doneAt: 1_700_000_000_000, person: 'Mara Quist', account: 'm', refused: null },
  ...fields,
});

async function hold(...all: readonly WaitingAct[]): Promise<void> {
  outbox.held = all;
  await act(() => Promise.resolve());
}

afterEach(() => hold());

const JOB = { job: jobView([deviceInfo()]) };

test.each([
  ['nothing waits', [], null],
  ['one', [held({})], '1 act waits here until the server answers'],
  ['two', [held({}), held({ place: 2 })], '2 acts wait here until the server answers'],
  [
    'one was refused',
    [held({}), held({ place: 2, refused: { issues: [], conflicts: [] } })],
    '1 act was refused when sent: look what becomes of it',
  ],
])('%s: so it is told on every page', async (_what, all, said) => {
  await hold(...all);
  const { queryByRole } = show(<WaitingBar />, JOB);
  expect(queryByRole('status')?.textContent?.replace(/Look$/, '') ?? null).toBe(said);
});

test.each<readonly [Partial<WaitingAct>, RegExp]>([
  [{ act: 'sayKept' }, /^said: told to keep its address · Drum filter drive 1$/],
  [{ act: 'sayGiven' }, /^said: given its address by hand · /],
  [{ act: 'saySetBack', body: { reason: 'by its key' } }, /^said: set back \(by its key\) · /],
  [{ act: 'bind', body: { mac: '02:4c:7a:1d:80:11' } }, /^MAC 02:4c:7a:1d:80:11 bound · /],
  [{ act: 'unbind' }, /^MAC taken off · /],
  [{ act: 'readOff', body: { text: '10.0.0.1' } }, /^read off it: 10\.0\.0\.1 · /],
  [{ act: 'sayWritten', body: { place: 'hosts', is: 'yes' } }, /^said of hosts: it has what/],
  [
    { act: 'edit', params: { job: 'job' }, body: { edits: [1, 2], why: 'as built' } },
    /^2 changes of the plan: as built$/,
  ],
  [{ act: 'leap' as 'edit', params: { job: 'job' } }, /^an act of another version \(leap\)/],
])('%j is told in words', async (fields, words) => {
  await hold(held(fields));
  const { findByText } = show(<WaitingScreen />, JOB);
  expect(await findByText(words)).toBeTruthy();
});

test('what was refused for another field is chosen, and goes out as chosen', async () => {
  const edit = { op: 'set', type: 'device', id: 'drive', field: 'title' } as const;
  const one = held({
    ...{ act: 'edit', params: { job: 'job' } },
    edits: [{ ...edit, from: 'Drive', to: 'Drive, west' }],
    body: { edits: [{ ...edit, from: 'Drive', to: 'Drive, west' }], why: 'seen' },
    refused: {
      issues: [{ code: 'edit.conflict', where: '', facts: { count: 1 } }],
      conflicts: [
        {
          ...{ type: 'device', id: 'drive', field: 'title' },
          ...{ base: 'Drive', theirs: 'Drive, east', mine: 'Drive, west' },
        },
      ],
    },
  });
  await hold(one);
  const again = jest.spyOn(outbox, 'again').mockResolvedValue(undefined);
  const { findByText, getByText } = show(<WaitingScreen />, JOB);
  fireEvent.click(await findByText('Mine: Drive, west'));
  fireEvent.click(getByText('Write what I chose'));
  await waitFor(() => expect(again).toHaveBeenCalledTimes(1));
  const [sent] = again.mock.calls[0] ?? [];
  expect(sent?.edits).toEqual([{ ...edit, from: 'Drive, east', to: 'Drive, west' }]);
  expect(sent?.body).toEqual({ edits: sent?.edits, why: 'seen' });
  again.mockRestore();
});

test('what somebody else did goes out in one’s own name, or is given up, asked twice', async () => {
  const issues = [{ code: 'waiting.ofAnother', where: '', facts: { person: 'Ilse' } }] as const;
  const one = held({ refused: { issues, conflicts: [] } });
  await hold(one);
  const again = jest.spyOn(outbox, 'again').mockResolvedValue(undefined);
  const drop = jest.spyOn(outbox, 'drop').mockResolvedValue(undefined);
  const { findByText, getByText } = show(<WaitingScreen />, JOB);
  fireEvent.click(await findByText('Send it in my name'));
  expect(again).toHaveBeenCalledWith({ ...one, account: undefined });
  fireEvent.click(getByText('Give it up'));
  expect(drop).not.toHaveBeenCalled();
  fireEvent.click(getByText('Give it up: it will not be done'));
  expect(drop).toHaveBeenCalledWith(one);
  again.mockRestore();
  drop.mockRestore();
});

test('a browser that is let in no longer says what it keeps, and of whom', async () => {
  const load = jest.spyOn(outbox, 'load').mockResolvedValue(undefined);
  await hold(held({}), held({ place: 2, person: 'Ilse Brandt' }));
  const { findByText } = show(<HeldAtDoor />);
  expect(
    await findByText(/^2 acts wait in this browser .* by Mara Quist, Ilse Brandt/),
  ).toBeTruthy();
  load.mockRestore();
});
