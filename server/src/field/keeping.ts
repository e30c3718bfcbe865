import { Journal } from './journal';
import type { FieldEvent } from './protocol';

export interface KeepingEvents {
  /** The capture of this run takes no more; evidence does. */
  captureFull(): void;
  /** Nothing can be written any more: the run has ended. */
  diskFull(): void;
}

/** What a run keeps. What cannot be kept is not done either: a full disk ends the run. */
export class Keeping {
  private journal: Journal | undefined;

  constructor(
    private readonly folder: string,
    private readonly events: KeepingEvents,
  ) {}

  get runId(): string | undefined {
    return this.journal?.runId;
  }

  begin(runId: string): void {
    this.end();
    this.journal = new Journal(this.folder, runId);
  }

  end(): void {
    this.journal?.close();
    this.journal = undefined;
  }

  capture(frame: Uint8Array, now: number): void {
    const written = this.write((journal) => journal.frame(frame, now));
    if (written === 'just-full') this.events.captureFull();
  }

  event(seen: Omit<FieldEvent, 'runId' | 'sequence'>): FieldEvent | undefined {
    return this.write((journal) => journal.event(seen));
  }

  private write<T>(write: (journal: Journal) => T): T | undefined {
    if (!this.journal) return undefined;
    try {
      return write(this.journal);
    } catch (error) {
      if (!(error instanceof Error && 'syscall' in error)) throw error;
      this.events.diskFull();
      return undefined;
    }
  }
}
