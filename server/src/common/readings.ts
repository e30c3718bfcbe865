import { Refusal } from '../store/refusal';

/** Files that may wait to be read; whoever comes then is asked to come again. */
const MOST_WAITING = 24;
/** Heap of the thread that reads one: what needs more is refused. */
export const READING_MEMORY = { maxOldGenerationSizeMb: 384, maxYoungGenerationSizeMb: 32 };

/** One that waits, or is read just now. */
export interface Reading<T> {
  readonly done: Promise<T>;
  /** How many are read before it; 0 while it is read itself, and afterwards. */
  readonly before: () => number;
}

/**
 * Foreign files of every kind are read one at a time, each in a thread with a bound to its memory: whoever sends a dozen
 * at once waits in a queue, and the machine does not notice.
 */
export class Readings {
  private readonly queue: symbol[] = [];
  private last: Promise<unknown> = Promise.resolve();

  /** Refuses with `reading.busy` where too many wait already. */
  take<T>(read: () => Promise<T>): Reading<T> {
    if (this.queue.length > MOST_WAITING)
      throw Refusal.of('reading.busy', '', { count: this.queue.length });
    const ticket = Symbol('reading');
    this.queue.push(ticket);
    const done = this.last.then(read).finally(() => {
      this.queue.splice(this.queue.indexOf(ticket), 1);
    });
    this.last = done.catch(() => undefined);
    return { done, before: () => Math.max(0, this.queue.indexOf(ticket)) };
  }

  get waiting(): number {
    return Math.max(0, this.queue.length - 1);
  }
}
