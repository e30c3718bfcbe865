import { existsSync, rmSync } from 'node:fs';
import { journalsIn, readJournal } from '../field/journal';
import type { FieldEvent } from '../field/protocol';
import { Refusal } from '../store/refusal';
import type { NewEvidence, Store } from '../store/store';

const RETRY = 1000;
const BATCH = 500;

/**
 * Brings what the wire saw into the database, in order. The journal on disk is written first, so
 * while the database is away events wait here, and after a crash they are read back from disk.
 */
export class EvidenceSink {
  private queue: FieldEvent[] = [];
  private working: Promise<void> | undefined;
  private stopped = false;
  private refused = 0;

  constructor(
    private readonly store: Store,
    private readonly written: (jobIds: ReadonlySet<string>) => void,
    private readonly log: (line: string) => void,
  ) {}

  /**
   * Reads the journals of earlier runs; what is in the database already is left alone. A journal
   * that the database has whole is done with; one it refuses (of another database) stays.
   */
  async recover(folder: string): Promise<void> {
    if (!existsSync(folder)) return;
    for (const path of journalsIn(folder)) {
      const before = this.refused;
      this.take(readJournal(path));
      await this.settled();
      if (this.refused === before && !this.stopped) rmSync(path);
    }
  }

  take(events: readonly FieldEvent[]): void {
    this.queue.push(...events);
    this.working ??= this.work().finally(() => {
      this.working = undefined;
    });
  }

  /** Resolves once everything taken so far is written, or the sink was stopped. */
  async settled(): Promise<void> {
    while (this.working) await this.working;
  }

  stop(): void {
    this.stopped = true;
  }

  private async work(): Promise<void> {
    while (this.queue.length > 0 && !this.stopped) {
      const batch = this.queue.slice(0, BATCH);
      if (!(await this.write(batch))) {
        await new Promise((resolve) => setTimeout(resolve, RETRY));
        continue;
      }
      this.queue = this.queue.slice(batch.length);
      this.written(new Set(batch.map((event) => event.jobId)));
    }
  }

  /** False where the database is away; what it refuses for good is logged and skipped. */
  private async write(batch: readonly FieldEvent[]): Promise<boolean> {
    try {
      await this.store.append(batch.map(toEvidence));
      return true;
    } catch (error) {
      if (error instanceof Refusal && error.issues.some((one) => one.code === 'store.away'))
        return false;
      this.log(`evidence not written: ${String(error)}`);
      this.refused += 1;
      return true;
    }
  }
}

const toEvidence = (event: FieldEvent): NewEvidence => ({
  ...event,
  mac: event.mac,
  address: event.address,
  bytes: event.bytes === undefined ? undefined : Buffer.from(event.bytes, 'hex'),
});
