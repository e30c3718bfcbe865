import fc from 'fast-check';
import {
  AWAITED,
  bucketsOf,
  LOST,
  NOT_ASKED,
  outagesOf,
  periodOf,
  summaryOf,
  tenthsOf,
} from '../../src/vigil';
import { cases } from '../cases';

/** `.` answered after a millisecond, `x` lost, `-` not asked, `?` still awaited. */
const beats = (text: string) =>
  [...text].map((one) => ({ x: LOST, '-': NOT_ASKED, '?': AWAITED })[one] ?? 10);

test.each([
  ['....', []],
  ['x...', [[0, 1]]],
  [
    '..xx.x',
    [
      [2, 2],
      [5, 1],
    ],
  ],
  // A beat that was not asked tells nothing, so it ends no outage.
  ['.x-x.', [[1, 3]]],
  ['..x?', [[2, 2]]],
  ['', []],
] as const)('outages of %s', (text, wanted) => {
  expect(outagesOf(beats(text)).map(({ from, beats: count }) => [from, count])).toEqual(wanted);
});

test('R-BEAT: the one that drops out every forty seconds is found, whatever is lost besides', () => {
  const values = Array.from({ length: 600 }, (_, at) => (at % 40 < 2 ? LOST : 12));
  expect(summaryOf(values)).toMatchObject({
    asked: 600,
    lost: 30,
    outages: 15,
    longest: 2,
    period: 40,
  });
  values[125] = LOST;
  expect(periodOf(outagesOf(values))).toBe(40);
});

test.each([
  ['three are too few', [0, 40, 80]],
  ['no beat in them', [0, 7, 91, 120, 300, 310]],
  ['every second beat is no beat of its own', [0, 2, 4, 6, 8, 10]],
])('R-BEAT: %s', (_name, starts) => {
  expect(periodOf(starts.map((from) => ({ from, beats: 1 })))).toBeUndefined();
});

test('buckets lose nothing: asked, lost, mean and slowest of all are those of the whole', () => {
  const value = fc.oneof(fc.nat(60_000), fc.constantFrom(LOST, NOT_ASKED, AWAITED));
  fc.assert(
    fc.property(
      fc.array(value, { maxLength: 500 }),
      fc.integer({ min: 1, max: 60 }),
      (values, most) => {
        const buckets = bucketsOf(values, most);
        const whole = summaryOf(values);
        const sum = (of: (one: (typeof buckets)[number]) => number) =>
          buckets.reduce((total, one) => total + of(one), 0);
        expect(buckets.length).toBeLessThanOrEqual(most);
        expect(sum(({ asked }) => asked)).toBe(whole.asked);
        expect(sum(({ lost }) => lost)).toBe(whole.lost);
        const millis = sum(({ mean = 0, asked, lost }) => mean * (asked - lost));
        expect(millis).toBeCloseTo((whole.mean ?? 0) * (whole.asked - whole.lost), 3);
        expect(Math.max(0, ...buckets.map(({ slowest = 0 }) => slowest))).toBe(whole.slowest ?? 0);
      },
    ),
    { numRuns: cases(300), seed: 71 },
  );
});

test.each([
  [0.84, 8],
  [0, 0],
  [9000, 0xfffc],
])('%s ms is kept as %s', (millis, tenths) => {
  expect(tenthsOf(millis)).toBe(tenths);
});
