import { fireEvent, waitFor } from '@testing-library/react';
import type { ThreeWays } from '@ipsonomo/core/entered';
import { ThreeWaysTable } from '../../src/features/prove/controller/ThreeWaysTable';
import { must, parseIpv4 } from '@ipsonomo/core/net';
import { docOfPlan, planOf, type Device } from '@ipsonomo/core/plan';
import { Corrections } from '../../src/features/prove/controller/Corrections';
import { Sides } from '../../src/features/prove/controller/Sides';
import { wentTo } from '../router';
import { deviceInfo, jobView, planOfView, show } from '../world';

const rows: readonly ThreeWays[] = [
  { value: 'name', planned: 'ox1', entered: '', found: '', verdict: 'alone' },
  { value: 'in', planned: '2', entered: '2', found: '4', verdict: 'differs' },
  { value: 'address', planned: '10.0.0.7', entered: '10.0.0.7', found: '', verdict: 'same' },
];

const drawn = (width: number) => {
  Object.defineProperty(document.documentElement, 'clientWidth', {
    configurable: true,
    value: width,
  });
  fireEvent(window, new Event('resize'));
  const { queryAllByText } = show(<ThreeWaysTable rows={rows} title="Valves" />, {});
  return (text: string) => queryAllByText(text).length;
};

test('on a phone only what differs is told side by side, the rest once with who says it', () => {
  const count = drawn(390);
  expect([count('× bytes in'), count('✓ address'), count('name')]).toEqual([1, 1, 1]);
  expect([count('10.0.0.7'), count('planned, entered')]).toEqual([1, 1]);
  // Three sides of the one value that differs, and of the value that one says alone.
  expect([count('2'), count('4'), count('planned'), count('found')]).toEqual([2, 1, 2, 1]);
});

test('on a wide screen every value stands in its column', () => {
  const count = drawn(1280);
  expect([count('10.0.0.7'), count('–'), count('planned'), count('planned, entered')]).toEqual([
    ...[2, 3, 1, 0],
  ]);
});

const planned = planOfView(jobView([deviceInfo()]));
const drive = planned.devices[0] as Device;
const entered: Device['entered'] = {
  ...{ name: 'fh2-drive-9', address: must(parseIpv4('172.22.40.86')), revision: '' },
  ...{ mask: undefined, gateway: undefined },
};
const differing: readonly ThreeWays[] = [
  {
    ...{
      value: 'address',
      planned: '172.22.40.85',
      entered: '172.22.40.86',
      found: '172.22.40.87',
    },
    verdict: 'differs',
  },
  { value: 'interval', planned: '10', entered: '', found: '', verdict: 'alone' },
];

test('R-SIDES: another side of a value becomes the plan’s; the device is sent to its call', async () => {
  const plan = planOf(docOfPlan({ ...planned, devices: [{ ...drive, entered }] }));
  const [device] = plan.devices;
  const [at] = device?.interfaces ?? [];
  if (!device || !at) throw new Error('no device');
  const place = { job: 'job', plan, doc: docOfPlan(plan), device, at };
  const { getByText, queryByText, calls } = show(<Sides {...place} rows={differing} />, {});
  fireEvent.click(getByText('As the project has it: address 172.22.40.86'));
  await waitFor(() =>
    expect(calls.find(({ path }) => path.endsWith('/edits'))?.body).toMatchObject({
      edits: [{ type: 'interface', field: 'address', to: '172.22.40.86' }],
    }),
  );
  expect(queryByText(/interval/)).toBe(null);
  fireEvent.click(getByText('The device has to take 1 value: to its call'));
  expect(wentTo()).toBe('/job/job/call/at');
});

test('R-SIDES: what the programmer has to correct is a list, and none where there is nothing', () => {
  const correction = { value: 'address', stands: '172.22.40.86', becomes: '172.22.40.85' } as const;
  const entry = (corrections: readonly (typeof correction)[]) => [{ device: drive, corrections }];
  const empty = show(<Corrections plan={planned} entries={entry([])} />, {});
  expect(empty.container.textContent).toBe('');
  empty.unmount();
  const { getByText } = show(<Corrections plan={planned} entries={entry([correction])} />, {});
  getByText('To correct in the project: 1 value');
  getByText('address: 172.22.40.86 → 172.22.40.85');
});
