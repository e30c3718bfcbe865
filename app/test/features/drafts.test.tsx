import { fireEvent, renderHook, act, waitFor } from '@testing-library/react';
import { docOfPlan } from '@ipsonomo/core/plan';
import { useNewDevices } from '../../src/features/plan/add/use-new-devices';
import { Change } from '../../src/features/plan/device/Change';
import { useKept } from '../../src/parts';
import { deviceInfo, jobView, planOfView, show } from '../world';

// What is typed stays; what somebody else changed meanwhile is met, and never written over unseen.

const viewWith = (title: string) => jobView([deviceInfo({ title })]);

function open(title: string) {
  const job = viewWith(title);
  const plan = planOfView(job);
  const [device] = job.devices;
  const [at] = device?.interfaces ?? [];
  if (!device || !at) throw new Error('no device');
  return show(<Change job="job" {...{ device, at, plan }} doc={docOfPlan(plan)} />, {
    ...{ job, also: [['/edits', { revision: 2, edits: [] }]] },
  });
}

test('a draft that was kept says what it was begun on, so that another change is a conflict', async () => {
  const first = open('Drum filter drive 1');
  fireEvent.click(first.getByText('Change name or address'));
  fireEvent.change(first.getByLabelText('Address'), { target: { value: '172.22.40.99' } });
  first.unmount();
  // Somebody else gave it another title; what was typed here says nothing of that.
  const again = open('Drum drive, left');
  fireEvent.click(again.getByText('Change name or address'));
  expect(again.getByLabelText('Address')).toHaveProperty('value', '172.22.40.99');
  fireEvent.click(again.getByText('Save'));
  await waitFor(() => expect(again.calls).toHaveLength(1));
  const { edits } = again.calls[0]?.body as {
    readonly edits: readonly { readonly field: string; readonly from: unknown }[];
  };
  expect(edits.map(({ field, from }) => [field, from])).toEqual([['address', '172.22.40.85']]);
});

test('a field that was left out comes back left out, and a draft of another form does not', () => {
  const kept = (first: unknown) => renderHook(() => useKept<unknown>('thing', first)).result;
  const typed = kept({ mac: '02:00:5e:00:53:01', name: 'a' });
  act(() => typed.current[1]({ mac: null, name: 'b' }));
  expect(kept({ mac: '02:00:5e:00:53:01', name: 'a' }).current[0]).toEqual({
    mac: null,
    name: 'b',
  });
  expect(kept({ name: ['a'] }).current[0]).toEqual({ name: ['a'] });
});

test('a kind that was just made is chosen once: what is chosen after it stays through a reload', () => {
  const plan = planOfView(viewWith('Drum filter drive 1'));
  const form = () => renderHook(() => useNewDevices('job', plan, 'tarnwick-valves-16')).result;
  const first = form();
  expect(first.current.frame.kindId).toBe('tarnwick-valves-16');
  act(() => first.current.correct(0, { title: 'By hand' }));
  act(() => first.current.change({ kindId: 'belloch-drive-d4' }));
  act(() => first.current.correct(0, { title: 'The left one' }));
  const again = form();
  expect(again.current.frame.kindId).toBe('belloch-drive-d4');
  expect(again.current.drafts[0]?.title).toBe('The left one');
});
