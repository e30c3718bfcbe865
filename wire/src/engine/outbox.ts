import type { Clock } from '@ipsonomo/core/clock';
import type { Keeping } from './keeping';

export interface OutboxOf {
  readonly keeping: Keeping;
  readonly clock: Clock;
  /** Whether somebody asked for something that sends, and it has not ended. */
  mayLeave(now: number): boolean;
  /** A frame of ours is about to leave. */
  leaves(now: number): void;
  send(frame: Uint8Array): void;
}

/** So many answers wait for one another at most: the first of a storm does not wait for the last. */
const MOST_TOGETHER = 16;

/**
 * Frames of ours on their way out. What they speak of is written before the first of them leaves: once for all that is said
 * in one go, since writing costs more than saying.
 */
export class Outbox {
  sent = 0;
  private waiting: Uint8Array[] = [];
  private isTogether = false;

  constructor(private readonly of: OutboxOf) {}

  add(frame: Uint8Array): void {
    const now = this.of.clock.now();
    if (!this.of.mayLeave(now)) return;
    this.of.keeping.capture(frame, now, 'ours');
    this.sent += 1;
    this.of.leaves(now);
    this.waiting.push(frame);
    if (!this.isTogether || this.waiting.length >= MOST_TOGETHER) this.leave();
  }

  /** What is heard in one go is kept in one go, and answered. */
  together(take: () => void): void {
    this.isTogether = true;
    this.of.keeping.hold();
    try {
      take();
    } finally {
      this.isTogether = false;
      this.leave();
      this.of.keeping.letGo();
    }
  }

  /** Nothing of it leaves any more. */
  clear(): void {
    this.waiting = [];
  }

  private leave(): void {
    // What cannot be kept ends the run, which clears what waits here.
    this.of.keeping.flush();
    const { waiting } = this;
    this.waiting = [];
    for (const frame of waiting) this.of.send(frame);
  }
}
