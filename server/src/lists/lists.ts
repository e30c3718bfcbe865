import { randomUUID } from 'node:crypto';
import type { Worker } from 'node:worker_threads';
import type { ListLines, ListTaking, ListView, PlanView } from '@ipsonomo/core';
import { openWorker } from '../common/open-worker';
import { READING_MEMORY, type Reading, type Readings } from '../common/readings';
import { Refusal } from '../store/refusal';
import type { ListAsk, ListFile, ListNews, Numbered } from './protocol';

const PROGRAM = { bundle: 'list.worker.js', source: 'lists/list.worker.ts' };

/** Lists that may be open at once, each with what it holds; the one opened first goes. */
const MOST_OPEN = 8;
const PATIENCE = 60_000;
const READING_PATIENCE = 120_000;

type Answer = Extract<ListNews, Numbered>;
type Made = Extract<ListNews, { kind: 'made' }>;
type Lines = Extract<ListNews, { kind: 'lines' }>;

/** One list that somebody is about to import. */
class OpenList {
  private now: ListView = { state: 'reading', share: 0 };
  private readonly waiting = new Map<number, (answer: Answer | undefined) => void>();
  private readonly reading: Reading<void>;
  private worker: Worker | undefined;
  private isRead: () => void = () => undefined;
  private isClosed = false;
  private asked = 0;

  constructor(
    readonly jobId: string,
    file: ListFile,
    readings: Readings,
  ) {
    this.reading = readings.take(() => this.read(file));
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
        this.fall(file.name, `not read within ${READING_PATIENCE / 1000} s`);
        this.close();
      }, READING_PATIENCE);
      tooLong.unref();
      const ended = () => {
        clearTimeout(tooLong);
        resolve();
      };
      this.isRead = ended;
      const worker = openWorker(PROGRAM, file, { resourceLimits: READING_MEMORY });
      this.worker = worker;
      worker.on('message', (news: ListNews) => this.hear(news));
      worker.on('error', (error) => this.fall(file.name, error.message));
      worker.once('exit', ended);
      worker.unref();
    });
  }

  private hear(news: ListNews): void {
    if ('ask' in news) {
      this.waiting.get(news.ask)?.(news);
      this.waiting.delete(news.ask);
      return;
    }
    if (news.kind === 'progress') this.now = { state: 'reading', share: news.share };
    else if (news.kind === 'ready') this.now = { state: 'ready', sheets: news.sheets };
    else this.now = { state: 'failed', issue: news.issue };
    if (news.kind !== 'progress') this.isRead();
    if (news.kind === 'failed') this.close();
  }

  private fall(where: string, why: string): void {
    this.now = { state: 'failed', issue: { code: 'list.fell', where, facts: { why } } };
    for (const end of this.waiting.values()) end(undefined);
    this.waiting.clear();
  }

  /** Undefined where its thread does not answer. */
  request(wish: ListAsk): Promise<Answer | undefined> {
    const ask = (this.asked += 1);
    return new Promise((resolve) => {
      const timer = setTimeout(() => resolve(undefined), PATIENCE);
      timer.unref();
      this.waiting.set(ask, (answer) => {
        clearTimeout(timer);
        resolve(answer);
      });
      this.worker?.postMessage({ ask, ...wish });
    });
  }

  close(): void {
    this.isClosed = true;
    void this.worker?.terminate();
  }
}

/** The lists that are being imported, each in a thread of its own. */
export class Lists {
  private readonly open = new Map<string, OpenList>();

  constructor(private readonly readings: Readings) {}

  begin(jobId: string, file: ListFile): string {
    if (file.bytes.length === 0) throw Refusal.of('list.empty', file.name);
    const id = randomUUID();
    this.open.set(id, new OpenList(jobId, file, this.readings));
    const done = [...this.open].filter(([, list]) => !list.isBusy);
    for (const [old, list] of done.slice(0, Math.max(0, done.length - MOST_OPEN + 1))) {
      list.close();
      this.open.delete(old);
    }
    return id;
  }

  state(jobId: string, id: string): ListView {
    return this.find(jobId, id).state;
  }

  /** Devices from a list that was read. Nothing is changed yet. */
  async make(
    jobId: string,
    id: string,
    taking: ListTaking,
    things: PlanView['things'],
    now: number,
  ): Promise<Made> {
    return (await this.answer(jobId, id, { kind: 'make', taking, things, now })) as Made;
  }

  /** One sheet as it stands in the file. */
  async lines(jobId: string, id: string, sheet: number): Promise<ListLines> {
    return ((await this.answer(jobId, id, { kind: 'lines', sheet })) as Lines).lines;
  }

  private async answer(jobId: string, id: string, wish: ListAsk): Promise<Answer> {
    const list = this.find(jobId, id);
    if (list.state.state !== 'ready') throw Refusal.of('list.reading', id);
    const answer = await list.request(wish);
    if (!answer) throw Refusal.of('list.fell', id, { why: 'no answer' });
    return answer;
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
