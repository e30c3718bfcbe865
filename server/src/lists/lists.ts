import { FALL_WORDS } from '@ipsonomo/language/kept';
import { randomUUID } from 'node:crypto';
import type { Worker } from 'node:worker_threads';
import type { ListView } from '@ipsonomo/core/api';
import { openWorker } from '@ipsonomo/threads';
import { READING_MEMORY, type Reading, type Readings } from '../common/readings';
import { Refusal } from '../store/refusal';
import type { ListFile, ListNews } from './protocol';

const PROGRAM = { bundle: 'list.worker.js', source: 'server/src/lists/list.worker.ts' };

/** Lists that may be open at once, each with its cells; the one opened first goes. */
const MOST_OPEN = 8;
const READING_PATIENCE = 120_000;

/** One list that somebody is about to import. */
class OpenList {
  private now: ListView = { state: 'reading', share: 0 };
  private readonly reading: Reading<void>;
  private worker: Worker | undefined;
  private tables: Uint8Array | undefined;
  private isClosed = false;

  constructor(
    readonly jobId: string,
    file: ListFile,
    readings: Readings,
  ) {
    this.reading = readings.take(() => this.read(file));
  }

  /** Resolves once it was read, or could not be. */
  get done(): Promise<void> {
    return this.reading.done;
  }

  get state(): ListView {
    const before = this.reading.before();
    return before > 0 ? { state: 'waiting', before } : this.now;
  }

  /** Whether it waits or is read: such a one is not closed for another. */
  get isBusy(): boolean {
    return this.now.state === 'reading';
  }

  private read(file: ListFile): Promise<void> {
    if (this.isClosed) return Promise.resolve();
    return new Promise((resolve) => {
      // Whoever waits behind a file that is never read to its end would wait as long.
      const tooLong = setTimeout(() => {
        this.fall(file.name, FALL_WORDS.notWithin({ seconds: READING_PATIENCE / 1000 }));
        this.close();
      }, READING_PATIENCE);
      tooLong.unref();
      const worker = openWorker(PROGRAM, file, { resourceLimits: READING_MEMORY });
      this.worker = worker;
      worker.on('message', (news: ListNews) => this.hear(news));
      worker.on('error', (error) => this.fall(file.name, error.message));
      // The next is read once this one's memory is given back.
      worker.once('exit', () => {
        clearTimeout(tooLong);
        resolve();
      });
      worker.unref();
    });
  }

  private hear(news: ListNews): void {
    if (news.kind === 'progress') {
      this.now = { state: 'reading', share: news.share };
      return;
    }
    if (news.kind === 'ready') {
      this.now = { state: 'ready', sheets: news.sheets };
      this.tables = news.kept;
    } else this.now = { state: 'failed', issue: news.issue };
    void this.worker?.terminate();
  }

  private fall(where: string, why: string): void {
    if (this.now.state === 'reading')
      this.now = { state: 'failed', issue: { code: 'list.fell', where, facts: { why } } };
  }

  /** Its tables, packed; undefined where it is not read, or could not be. */
  get kept(): Uint8Array | undefined {
    return this.tables;
  }

  close(): void {
    this.isClosed = true;
    this.tables = undefined;
    void this.worker?.terminate();
  }
}

/** The lists that are being imported: each is read in a thread of its own, and kept packed until it was taken. */
export class Lists {
  private readonly open = new Map<string, OpenList>();

  constructor(private readonly readings: Readings) {}

  begin(jobId: string, file: ListFile): string {
    if (file.bytes.length === 0) throw Refusal.of('list.empty', file.name);
    const id = randomUUID();
    const list = new OpenList(jobId, file, this.readings);
    this.open.set(id, list);
    void list.done.then(() => this.letOldGo());
    this.letOldGo();
    return id;
  }

  private letOldGo(): void {
    const done = [...this.open].filter(([, list]) => !list.isBusy);
    for (const [old] of done.slice(0, Math.max(0, done.length - MOST_OPEN))) this.end(old);
  }

  state(jobId: string, id: string): ListView {
    return this.find(jobId, id).state;
  }

  /** What was read, packed (`kept.ts`). */
  kept(jobId: string, id: string): Uint8Array {
    const { state, kept } = this.find(jobId, id);
    if (state.state === 'failed') throw new Refusal([state.issue]);
    if (!kept) throw Refusal.of('list.reading', id);
    return kept;
  }

  end(id: string): void {
    this.open.get(id)?.close();
    this.open.delete(id);
  }

  close(): void {
    for (const id of [...this.open.keys()]) this.end(id);
  }

  private find(jobId: string, id: string): OpenList {
    const list = this.open.get(id);
    if (list?.jobId !== jobId) throw Refusal.of('thing.unknown', 'list');
    return list;
  }
}
