import type { Worker } from 'node:worker_threads';
import { costOf, orderRound, type RoundCall, type RoundCost } from '@ipsonomo/core';
import { openWorker } from '../common/open-worker';
import { Refusal } from '../store/refusal';

export interface Question {
  readonly number: number;
  readonly calls: readonly RoundCall[];
}

export interface Ordered {
  /** Ids of interfaces. */
  readonly order: readonly string[];
  readonly cost: RoundCost;
}

export interface Thought extends Ordered {
  readonly number: number;
}

interface Waiting {
  readonly resolve: (ordered: Ordered) => void;
  readonly reject: (why: unknown) => void;
}

const PROGRAM = { bundle: 'thinking.worker.js', source: 'service/thinking.worker.ts' };
const MEMORY = { maxOldGenerationSizeMb: 512, maxYoungGenerationSizeMb: 64 };
/** A round of so few calls is ordered quicker than a thread is asked. */
const AT_ONCE = 40;
const MOST_WAITING = 32;

/** What takes long is computed in a thread of its own, which is begun when it is needed and again where it fell. */
export class Thinking {
  private worker: Worker | undefined;
  private readonly waiting = new Map<number, Waiting>();
  private last = 0;

  order(calls: readonly RoundCall[]): Promise<Ordered> {
    if (calls.length <= AT_ONCE) {
      const order = orderRound(calls);
      return Promise.resolve({ order: order.map(({ id }) => id), cost: costOf(order) });
    }
    if (this.waiting.size >= MOST_WAITING)
      return Promise.reject(Refusal.of('server.busy', '', { count: this.waiting.size }));
    const number = (this.last += 1);
    return new Promise((resolve, reject) => {
      this.waiting.set(number, { resolve, reject });
      this.opened().postMessage({ number, calls } satisfies Question);
    });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private opened(): Worker {
    if (this.worker) return this.worker;
    const worker = openWorker(PROGRAM, undefined, { resourceLimits: MEMORY });
    this.worker = worker;
    worker.on('message', ({ number, order, cost }: Thought) => {
      this.waiting.get(number)?.resolve({ order, cost });
      this.waiting.delete(number);
    });
    worker.once('error', (error) => this.fell(worker, error.message));
    worker.once('exit', () => this.fell(worker, 'its thread has ended'));
    worker.unref();
    return worker;
  }

  private fell(worker: Worker, why: string): void {
    if (this.worker !== worker) return;
    this.worker = undefined;
    for (const { reject } of this.waiting.values())
      reject(Refusal.of('server.thinking', '', { why }));
    this.waiting.clear();
  }
}
