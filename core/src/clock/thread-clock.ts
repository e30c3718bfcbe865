import { timerClock, type Clock, type Timers } from './clock';
import { follow, type FollowerPort } from './conducted';

/** Of a conducted time: the way to its conductor, and the moment it begins at. */
export interface Conducted {
  readonly port: FollowerPort;
  readonly since: number;
}

/** What a thread's platform has to keep time. */
export interface Platform<Timer> extends Timers<Timer> {
  /** Calls back once all that is under way now was dealt with. */
  settle(done: () => void): void;
}

/** The clock of a thread: conducted where it was given a conductor, else the real time. */
export const threadClock = <Timer>(
  platform: Platform<Timer>,
  conducted: Conducted | undefined,
): Clock =>
  conducted
    ? follow(conducted.port, conducted.since, (done) => platform.settle(done))
    : timerClock(platform);
