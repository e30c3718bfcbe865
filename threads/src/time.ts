import { MessageChannel, type TransferListItem } from 'node:worker_threads';
import {
  Conductor,
  timerClock,
  type Clock,
  type Conducted,
  type Platform,
} from '@ipsonomo/core/clock';

/** The machine's clock is kept true by small steps; more than this is a jump, in milliseconds. */
const JUMP = 2000;

/** How far the machine's clock has been set forward since this thread began. */
let forward = 0;

/**
 * Milliseconds since 1970, never backwards: what was armed for ten minutes ends after ten minutes, whoever sets the machine's
 * clock back. Set forward it is followed: then it had been wrong, and what was to end by then has ended.
 */
function now(): number {
  const own = performance.timeOrigin + performance.now();
  const ahead = Date.now() - own;
  if (ahead - forward > JUMP) forward = ahead;
  return own + forward;
}

/** Node's own. */
export const PLATFORM: Platform<NodeJS.Timeout> = {
  now,
  setTimeout: (act, millis) => setTimeout(act, millis),
  clearTimeout: (timer) => clearTimeout(timer),
  settle: (done) => void setImmediate(done),
};

/** What a new thread is given to know the time by; undefined: it knows it by itself. */
export interface ThreadTime {
  readonly conducted: Conducted | undefined;
  readonly transfer: readonly TransferListItem[];
  /** Time waits no longer for a thread that has ended. */
  ended(): void;
}

/** The time of the wire and of all who speak on it. */
export interface Time {
  readonly clock: Clock;
  forThread(): ThreadTime;
  stop(): void;
}

const ITS_OWN: ThreadTime = { conducted: undefined, transfer: [], ended: () => undefined };

export const REAL_TIME: Time = {
  clock: timerClock(PLATFORM),
  forThread: () => ITS_OWN,
  stop: () => undefined,
};

/** Real milliseconds between two steps. */
const BEAT = 4;

/**
 * A time that goes faster, in which a practice site starts, pauses and backs off in a fraction of the real time. For
 * the practice site alone: a real device does not hurry.
 * @param pace how many times as fast, at most
 * @param since where it begins, in milliseconds since 1970
 */
export function hastenedTime(pace: number, since: number): Time {
  const conductor = new Conductor(since);
  const beat = setInterval(() => conductor.step(BEAT * pace), BEAT);
  beat.unref();
  return {
    clock: conductor.clock,
    forThread() {
      const { port1, port2 } = new MessageChannel();
      conductor.add(port1);
      port1.unref();
      const conducted = { port: port2, since: conductor.clock.now() };
      return { conducted, transfer: [port2], ended: () => conductor.remove(port1) };
    },
    stop: () => clearInterval(beat),
  };
}
