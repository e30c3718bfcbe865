import type { CallOff, Clock } from './clock';

interface Due {
  readonly at: number;
  readonly act: () => void;
}

/** A clock that stands still until it is moved. */
export class SteppedClock implements Clock {
  private readonly waiting = new Set<Due>();

  /** @param time milliseconds since 1970 */
  constructor(private time: number) {}

  now(): number {
    return this.time;
  }

  after(millis: number, act: () => void): CallOff {
    const due = { at: this.time + Math.max(0, millis), act };
    this.waiting.add(due);
    return () => void this.waiting.delete(due);
  }

  /** When the next one is due; Infinity where nobody waits. */
  nextAt(): number {
    return this.next()?.at ?? Infinity;
  }

  /** Lets time pass up to a moment; whoever is due by then is called at the moment asked for, in order. */
  advance(to: number): void {
    for (let next = this.next(); next && next.at <= to; next = this.next()) {
      this.waiting.delete(next);
      this.time = Math.max(this.time, next.at);
      next.act();
    }
    this.time = Math.max(this.time, to);
  }

  /** Of two that are due together the one that asked first: a set keeps its order. */
  private next(): Due | undefined {
    let first: Due | undefined;
    for (const due of this.waiting) if (!first || due.at < first.at) first = due;
    return first;
  }
}
