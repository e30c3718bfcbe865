import { fireEvent } from '@testing-library/react';
import type { ThreeWays } from '@ipsonomo/core/entered';
import { ThreeWaysTable } from '../../src/features/prove/controller/ThreeWaysTable';
import { show } from '../world';

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
