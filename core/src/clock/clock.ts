/** Takes back what was to happen; harmless once it has. */
export type CallOff = () => void;

/** The time that passes for everybody on one wire. Whoever waits is handed one, and asks no other. */
export interface Clock {
  /** Milliseconds since 1970, never backwards. */
  now(): number;
  /** Calls `act` once, after so many milliseconds (less than 0 is 0), never at once. */
  after(millis: number, act: () => void): CallOff;
}

/** What a platform has to tell the time and to be called again. */
export interface Timers<Timer> {
  now(): number;
  setTimeout(act: () => void, millis: number): Timer;
  clearTimeout(timer: Timer): void;
}

/** Waits on a clock. */
export const pause = (clock: Clock, millis: number): Promise<void> =>
  new Promise((resolve) => void clock.after(millis, resolve));

/** The real time of a platform. */
export const timerClock = <Timer>(timers: Timers<Timer>): Clock => ({
  now: () => timers.now(),
  after(millis, act) {
    const timer = timers.setTimeout(act, Math.max(0, millis));
    return () => timers.clearTimeout(timer);
  },
});
