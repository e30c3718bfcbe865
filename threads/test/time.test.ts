import { PLATFORM } from '../src/time';

// A clock that jumps: whoever sets the machine's clock makes nothing be answered for longer.

const HOUR = 3_600_000;
const real = Date.now;
let set = 0;
beforeEach(() => {
  set = 0;
  jest.spyOn(Date, 'now').mockImplementation(() => real() + set);
});
afterEach(() => jest.restoreAllMocks());

test('it is the time, and goes on by itself while the clock is moved a little', () => {
  const begun = PLATFORM.now();
  expect(Math.abs(begun - real())).toBeLessThan(2100);
  set = 1500;
  expect(PLATFORM.now() - begun).toBeLessThan(1000);
});

test('set back it goes on; set forward it follows, once, and never goes back', () => {
  const begun = PLATFORM.now();
  set = -HOUR;
  const back = PLATFORM.now() - begun;
  expect(back).toBeGreaterThanOrEqual(0);
  expect(back).toBeLessThan(1000);
  set = HOUR;
  const ahead = PLATFORM.now() - begun;
  expect(ahead).toBeGreaterThan(HOUR - 3000);
  expect(ahead).toBeLessThan(HOUR + 3000);
  expect(PLATFORM.now() - begun - ahead).toBeLessThan(1000);
  set = 0;
  expect(PLATFORM.now() - begun).toBeGreaterThanOrEqual(ahead);
});
