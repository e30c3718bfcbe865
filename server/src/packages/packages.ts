import { FALL_WORDS } from '@ipsonomo/language/kept';
import { randomUUID } from 'node:crypto';
import { createReadStream, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import type { PackageView } from '@ipsonomo/core/api';
import { openWorker } from '@ipsonomo/threads';
import { Refusal } from '../store/refusal';
import type { PackageNews, PackageOrder } from './protocol';

const PROGRAM = { bundle: 'package.worker.js', source: 'server/src/packages/package.worker.ts' };
const MEMORY = { maxOldGenerationSizeMb: 384, maxYoungGenerationSizeMb: 24 };

/** So many are written at once; the others wait. */
const MOST_AT_ONCE = 2;
/** Packages that lie there, being written or ready; the one begun first goes. */
const MOST_KEPT = 12;
/** One that nobody fetched goes after this, in milliseconds. */
const KEPT_FOR = 30 * 60_000;

type Wish = Omit<PackageOrder, 'path' | 'database' | 'captures'>;

/** Files on their way out, in one file: written in a thread of its own, whole or not at all. */
class Package {
  private now: PackageView;
  private worker: Worker | undefined;
  private settle: () => void = () => undefined;
  readonly done: Promise<void>;

  constructor(readonly order: PackageOrder) {
    this.now = { state: 'writing', done: 0, total: order.wish.formats.length, doing: null };
    this.done = new Promise((resolve) => (this.settle = resolve));
  }

  get state(): PackageView {
    return this.now;
  }

  begin(): void {
    if (this.now.state !== 'writing') return this.settle();
    const worker = openWorker(PROGRAM, this.order, { resourceLimits: MEMORY });
    this.worker = worker;
    worker.on('message', (news: PackageNews) => this.hear(news));
    worker.on('error', (error) => this.fall(error.message));
    worker.once('exit', () => {
      this.fall(FALL_WORDS.threadEnded);
      this.settle();
    });
    worker.unref();
  }

  /** Ends it, wherever it is, and leaves nothing behind. */
  async end(): Promise<void> {
    this.fall(FALL_WORDS.takenBack);
    if (this.worker) await this.worker.terminate();
    else this.settle();
    rmSync(this.order.path, { force: true });
    rmSync(`${this.order.path}.part`, { force: true });
  }

  private hear(news: PackageNews): void {
    const total = this.order.wish.formats.length;
    this.now = news.state === 'writing' ? { ...news, total } : news;
  }

  private fall(why: string): void {
    if (this.now.state !== 'writing') return;
    this.now = { state: 'failed', issue: { code: 'package.fell', where: '', facts: { why } } };
  }
}

/** The packages of all jobs. */
export class Packages {
  private readonly all = new Map<string, Package>();
  private readonly queue: Package[] = [];
  private atWork = 0;
  private readonly folder: string;

  constructor(private readonly place: Pick<PackageOrder, 'database' | 'captures'>) {
    this.folder = join(place.captures, 'packages');
    // What a server before this one left is nobody's.
    rmSync(this.folder, { recursive: true, force: true });
    mkdirSync(this.folder, { recursive: true });
  }

  /** @returns its id */
  begin(wish: Wish): string {
    const id = randomUUID();
    const one = new Package({ ...wish, ...this.place, path: join(this.folder, id) });
    this.all.set(id, one);
    this.queue.push(one);
    this.next();
    this.letOldGo();
    setTimeout(() => void this.end(wish.jobId, id).catch(() => undefined), KEPT_FOR).unref();
    return id;
  }

  state(jobId: string, id: string): PackageView {
    return this.of(jobId, id).state;
  }

  /** Waits for one and reads it. Refuses with why it could not be written. */
  async read(
    jobId: string,
    id: string,
  ): Promise<{ readonly name: string; readonly pieces: AsyncIterable<Uint8Array> }> {
    const one = this.of(jobId, id);
    await one.done;
    const { state } = one;
    if (state.state === 'failed') throw new Refusal([state.issue]);
    if (state.state !== 'ready') throw Refusal.of('package.fell', '', { why: FALL_WORDS.ended });
    return { name: state.name, pieces: createReadStream(one.order.path) };
  }

  async end(jobId: string, id: string): Promise<void> {
    const one = this.of(jobId, id);
    this.all.delete(id);
    await one.end();
  }

  async close(): Promise<void> {
    for (const one of this.all.values()) await one.end();
    this.all.clear();
  }

  private of(jobId: string, id: string): Package {
    const one = this.all.get(id);
    if (!one || one.order.jobId !== jobId) throw Refusal.of('thing.unknown', 'package');
    return one;
  }

  private next(): void {
    while (this.atWork < MOST_AT_ONCE) {
      const one = this.queue.shift();
      if (!one) return;
      this.atWork += 1;
      void one.done.then(() => {
        this.atWork -= 1;
        this.next();
      });
      one.begin();
    }
  }

  private letOldGo(): void {
    for (const [id, one] of [...this.all].slice(0, Math.max(0, this.all.size - MOST_KEPT))) {
      this.all.delete(id);
      void one.end();
    }
  }
}
