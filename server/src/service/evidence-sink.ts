import { SERVER_WORDS } from '@ipsonomo/language/terminal';
import { appendFileSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { type FieldEvent, journalsIn, readJournal } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';
import type { NewEvidence } from '../store/evidence';
import type { Store } from '../store/store';

const RETRY = 1000;
/** So long others may come to be written with the first: where a whole plant asks at once, it is answered before. */
const GATHER = 60;
const BATCH = 500;

/**
 * Brings what the wire saw into the database, in order. The journal on disk is written first, so
 * while the database is away events wait here, and after a crash they are read back from disk.
 */
export class EvidenceSink {
  private queue: FieldEvent[] = [];
  private working: Promise<void> | undefined;
  private stopped = false;
  private hurry: () => void = () => undefined;
  private kept = 0;

  /** @param folder where that is kept which the database does not take */
  constructor(
    private readonly store: Store,
    private readonly folder: string,
    private readonly written: (jobIds: ReadonlySet<string>) => void,
    private readonly log: (line: string) => void,
  ) {}

  /** How many pieces of evidence are kept apart, because the database did not take them. */
  get apart(): number {
    return this.kept;
  }

  /**
   * Reads the journals of earlier runs; what is in the database already is left alone. A journal is done with once all
   * of it is in the database or kept apart; one of another database, of which it takes nothing, stays.
   */
  async recover(): Promise<void> {
    if (!existsSync(this.folder)) return;
    for (const path of journalsIn(this.folder)) {
      const { events, broken } = readJournal(path);
      const before = this.kept;
      this.take(events);
      await this.settled();
      if (this.stopped) return;
      const isOfAnother = events.length > 0 && this.kept - before === events.length;
      if (isOfAnother) continue;
      for (const line of broken) this.keepApart(line, SERVER_WORDS.lineUnread({ path }));
      rmSync(path);
    }
  }

  take(events: readonly FieldEvent[]): void {
    this.queue.push(...events);
    this.working ??= this.gather()
      .then(() => this.work())
      .finally(() => {
        this.working = undefined;
      });
  }

  /** Resolves once everything taken so far is written, or the sink was stopped. */
  async settled(): Promise<void> {
    while (this.working) {
      this.hurry();
      await this.working;
    }
  }

  private gather(): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, GATHER);
      this.hurry = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  stop(): void {
    this.stopped = true;
    this.hurry();
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

  /** False where the database is away. What it refuses is halved until the one is found, which is kept apart. */
  private async write(batch: readonly FieldEvent[]): Promise<boolean> {
    try {
      await this.store.evidence.append(batch.map(toEvidence));
      return true;
    } catch (error) {
      if (error instanceof Refusal && error.issues.some(({ code }) => LATER.includes(code)))
        return false;
      const [first] = batch;
      if (batch.length === 1 && first) {
        this.keepApart(JSON.stringify(first), String(error));
        return true;
      }
      const half = Math.ceil(batch.length / 2);
      return (await this.write(batch.slice(0, half))) && (await this.write(batch.slice(half)));
    }
  }

  private keepApart(line: string, why: string): void {
    this.kept += 1;
    this.log(SERVER_WORDS.evidenceNotWritten({ file: APART, why }));
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    appendFileSync(join(this.folder, APART), `${line}\n`, { mode: 0o600 });
  }
}

/** What may be taken when it is tried again. */
const LATER = ['store.away', 'store.busy'];

/** Beside the journals, and not read as one. */
const APART = 'not-taken.txt';

const toEvidence = (event: FieldEvent): NewEvidence => ({
  ...event,
  mac: event.mac,
  address: event.address,
  bytes: event.bytes === undefined ? undefined : Buffer.from(event.bytes, 'hex'),
});
