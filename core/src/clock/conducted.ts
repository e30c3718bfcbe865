import type { Clock } from './clock';
import { SteppedClock } from './stepped';

/** A way to another thread: the moment to go to is sent, and sent back by who has come there. */
export interface FollowerPort {
  postMessage(moment: number): void;
  on(event: 'message', take: (moment: number) => void): unknown;
}

/**
 * One time for several threads, a multiple of the real one and only for the practice site: it goes on by a step
 * when everybody has come as far. A machine that is busy therefore makes it slower, and nobody misses an answer that
 * was on its way.
 */
export class Conductor {
  private readonly own: SteppedClock;
  private readonly behind = new Set<FollowerPort>();
  private readonly followers = new Set<FollowerPort>();

  constructor(since: number) {
    this.own = new SteppedClock(since);
  }

  get clock(): Clock {
    return this.own;
  }

  /** From now on time waits for this one too. */
  add(port: FollowerPort): void {
    this.followers.add(port);
    port.on('message', (moment) => {
      if (moment === this.own.now()) this.behind.delete(port);
    });
  }

  /** Time no longer waits for this one, who has fallen over. */
  remove(port: FollowerPort): void {
    this.followers.delete(port);
    this.behind.delete(port);
  }

  /** One step, unless somebody is still behind. @returns whether it was made */
  step(millis: number): boolean {
    if (this.behind.size > 0) return false;
    const to = this.own.now() + millis;
    this.own.advance(to);
    for (const port of this.followers) {
      this.behind.add(port);
      port.postMessage(to);
    }
    return true;
  }
}

/**
 * The clock of a thread that follows a conductor.
 * @param settle calls back once all that is under way in this thread was dealt with
 */
export function follow(
  port: FollowerPort,
  since: number,
  settle: (done: () => void) => void,
): Clock {
  const clock = new SteppedClock(since);
  port.on('message', (moment) => {
    clock.advance(moment);
    settle(() => port.postMessage(moment));
  });
  return clock;
}
