import { fireEvent, waitFor } from '@testing-library/react';
import type { WrittenTick } from '@ipsonomo/core/api';
import type { Edit } from '@ipsonomo/core/plan';
import { WrittenScreen } from '../../src/features/hand-over/written/WrittenScreen';
import { KnownScreen } from '../../src/features/prove/known/KnownScreen';
import { wentTo } from '../router';
import { deviceInfo, jobView, show } from '../world';

const job = jobView([
  deviceInfo(),
  deviceInfo(
    { id: 'pump', title: 'Pump 2', name: 'fh2-pump-2' },
    { id: 'pump-at', address: '172.22.40.86', mac: '02:00:5e:00:53:02' },
  ),
]);

test('what is pasted is held against the plan; MACs that fit are taken into it, and nothing else', async () => {
  const screen = show(<KnownScreen job="job" />, { job, also: [['/adapters', []]] });
  fireEvent.change(screen.getByLabelText('Or paste it here'), {
    target: {
      value: [
        '172.22.40.85 dev eth0 lladdr 02:00:5e:00:53:01 REACHABLE',
        '172.22.40.86 dev eth0 lladdr 02:00:5e:00:53:99 REACHABLE',
        '172.22.40.200 dev eth0 lladdr 02:00:5e:00:53:98 STALE',
      ].join('\n'),
    },
  });
  screen.getByText('3 lines read as a list of neighbours.');
  screen.getByText('Another device has the planned address · 1');
  screen.getByText('Nobody planned it · 1');
  fireEvent.click(screen.getByLabelText('Pump 2'));
  expect(wentTo()).toBe('/job/job/call/pump-at');
  fireEvent.click(screen.getByText('Take 1 MAC into the plan'));
  await waitFor(() =>
    expect(screen.calls.find(({ path }) => path.endsWith('/edits'))?.body).toMatchObject({
      edits: [{ id: 'at', field: 'mac', to: '02:00:5e:00:53:01' }],
    }),
  );
});

test('R-FOUND: what nobody planned is taken into the plan, marked; a device elsewhere is settled as on site', async () => {
  const screen = show(<KnownScreen job="job" />, { job, also: [['/adapters', []]] });
  fireEvent.change(screen.getByLabelText('Or paste it here'), {
    target: {
      value: [
        '172.22.40.99 dev eth0 lladdr 02:00:5e:00:53:02 REACHABLE',
        '172.22.40.200 dev eth0 lladdr 02:00:5e:00:53:98 STALE',
        '10.9.7.3 dev eth0 lladdr 02:00:5e:00:53:97 STALE',
      ].join('\n'),
    },
  });
  screen.getByText('The planned device has another address · 1');
  fireEvent.click(screen.getByText('The plan was wrong: take 172.22.40.99'));
  await waitFor(() => expect(screen.calls).toHaveLength(1));
  expect(screen.calls[0]?.body).toMatchObject({
    edits: [{ op: 'set', id: 'pump-at', field: 'address', to: '172.22.40.99' }],
  });
  fireEvent.click(screen.getByText('Take 2 devices and 1 subnet into the plan, as found'));
  await screen.findByText(/^2 devices and one subnet are in the plan now/);
  const { edits } = screen.calls[1]?.body as { edits: readonly Edit[] };
  expect(
    edits.map((edit) => [edit.op, edit.type, edit.op === 'add' ? edit.thing['found'] : '']),
  ).toEqual([
    ['add', 'subnet', 'heard in a list of neighbours; its mask was guessed'],
    ['add', 'device', 'heard in a list of neighbours'],
    ['add', 'interface', undefined],
    ['add', 'device', 'heard in a list of neighbours'],
    ['add', 'interface', undefined],
  ]);
});

test('what cannot be read is refused in words, and stays where it was pasted', () => {
  const screen = show(<KnownScreen job="job" />, { job, also: [['/adapters', []]] });
  fireEvent.change(screen.getByLabelText('Or paste it here'), {
    target: { value: 'no such thing' },
  });
  screen.getByText(/neither an address nor a MAC/);
  expect(screen.queryByText(/into the plan/)).toBe(null);
});

test('R-WRITTEN: a place is ticked off, with who did; a tick of another value counts no longer', async () => {
  const tick = (place: string, value: string): WrittenTick => ({
    ...{ interface: 'at', place, whose: '', value, is: 'yes' },
    ...{ person: 'Mara Quist', at: 1_700_000_000_000 },
  });
  const ticks = [tick('monitoring', '172.22.40.85'), tick('label', 'fh2-drive-1 172.22.40.84')];
  const screen = show(<WrittenScreen job="job" />, { job, also: [['/written', ticks]] });
  fireEvent.click(await screen.findByLabelText('Drum filter drive 1'));
  await screen.findByText(/^172\.22\.40\.85 · ticked by Mara Quist/);
  screen.getByText('has to stand there: fh2-drive-1 172.22.40.85');
  fireEvent.click(screen.getByLabelText('label on the device'));
  await waitFor(() => expect(screen.calls).toHaveLength(1));
  expect(screen.calls[0]).toMatchObject({
    path: '/api/jobs/job/interfaces/at/said-written',
    body: { place: 'label', value: 'fh2-drive-1 172.22.40.85', is: 'yes' },
  });
  fireEvent.click(screen.getByLabelText('monitoring'));
  await waitFor(() => expect(screen.calls).toHaveLength(2));
  expect(screen.calls[1]?.body).toMatchObject({ place: 'monitoring', is: 'no' });
  fireEvent.change(screen.getByLabelText('A part of its name, cabinet or address'), {
    target: { value: 'pump' },
  });
  expect(screen.queryByLabelText('Drum filter drive 1')).toBe(null);
});
