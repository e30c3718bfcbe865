import fc from 'fast-check';
import {
  Conductor,
  follow,
  pause,
  SteppedClock,
  timerClock,
  type FollowerPort,
} from '../../src/clock';

test('a stepped clock calls in the order of the moments, each at its own', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -5, max: 100 }), { maxLength: 20 }), (waits) => {
      const clock = new SteppedClock(1000);
      const called: [number, number][] = [];
      waits.forEach((wait, at) => clock.after(wait, () => called.push([clock.now(), at])));
      clock.advance(1100);
      const wanted = waits
        .map((wait, at): [number, number] => [1000 + Math.max(0, wait), at])
        .sort(([a, i], [b, j]) => a - b || i - j);
      expect(called).toEqual(wanted);
      expect(clock.now()).toBe(1100);
      expect(clock.nextAt()).toBe(Infinity);
    }),
  );
});

test('what was called off does not come, and what is asked for meanwhile comes in the same step', async () => {
  const clock = new SteppedClock(0);
  const called: string[] = [];
  clock.after(10, () => called.push('never'))();
  clock.after(5, () => void clock.after(5, () => called.push(`second at ${clock.now()}`)));
  const paused = pause(clock, 20).then(() => called.push('paused'));
  expect(clock.nextAt()).toBe(5);
  clock.advance(19);
  expect(called).toEqual(['second at 10']);
  clock.advance(20);
  await paused;
  expect(called).toEqual(['second at 10', 'paused']);
  clock.advance(7);
  expect(clock.now()).toBe(20);
});

test('the clock of a platform waits no less than nothing, and its timers are cleared', () => {
  const set: number[] = [];
  const cleared: number[] = [];
  const clock = timerClock({
    now: () => 7,
    setTimeout: (_act, millis) => set.push(millis),
    clearTimeout: (timer: number) => void cleared.push(timer),
  });
  clock.after(-3, () => undefined);
  clock.after(40, () => undefined)();
  expect([clock.now(), set, cleared]).toEqual([7, [0, 40], [2]]);
});

/** Both ends of a way between two threads; what is sent arrives when the test says so. */
function way(): { ends: [FollowerPort, FollowerPort]; deliver: () => void } {
  const takers: ((moment: number) => void)[] = [];
  const under: (() => void)[] = [];
  const end = (own: 0 | 1): FollowerPort => ({
    postMessage: (moment) => void under.push(() => takers[1 - own]?.(moment)),
    on: (_event, take) => (takers[own] = take),
  });
  return { ends: [end(0), end(1)], deliver: () => under.splice(0).forEach((one) => one()) };
}

test('conducted time waits for whoever is behind, and for nobody who fell over', () => {
  const conductor = new Conductor(0);
  const [near, far] = [way(), way()];
  conductor.add(near.ends[0]);
  conductor.add(far.ends[0]);
  const settled: (() => void)[] = [];
  const clock = follow(near.ends[1], 0, (done) => done());
  const slow = follow(far.ends[1], 0, (done) => settled.push(done));
  expect(conductor.step(50)).toBe(true);
  near.deliver();
  near.deliver();
  far.deliver();
  expect([clock.now(), slow.now(), conductor.clock.now()]).toEqual([50, 50, 50]);
  // It has come there, but is not done with what it does there.
  expect(conductor.step(50)).toBe(false);
  settled.splice(0).forEach((done) => done());
  far.deliver();
  expect(conductor.step(50)).toBe(true);
  near.deliver();
  near.deliver();
  expect(conductor.step(50)).toBe(false);
  conductor.remove(far.ends[0]);
  expect(conductor.step(50)).toBe(true);
  expect(conductor.clock.now()).toBe(150);
});
