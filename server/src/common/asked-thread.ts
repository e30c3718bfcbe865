import { FALL_WORDS } from '@ipsonomo/language/kept';
import {
  parentPort,
  type ResourceLimits,
  type TransferListItem,
  type Worker,
} from 'node:worker_threads';
import type { Issue } from '@ipsonomo/core/net';
import type { EditConflict } from '@ipsonomo/core/plan';
import { Refusal } from '../store/refusal';
import { openWorker, type Program } from '@ipsonomo/threads';

interface Asked<Q> {
  readonly number: number;
  readonly question: Q;
}

type Answered<A> = { readonly number: number } & (
  | { readonly answer: A }
  | { readonly refused: readonly Issue[]; readonly conflicts: readonly EditConflict[] }
  | { readonly failed: string }
);

interface Waiting<A> {
  readonly resolve: (answer: A) => void;
  readonly reject: (why: unknown) => void;
}

interface Limits {
  readonly memory: ResourceLimits;
  /** So many questions may wait; who comes then is refused with `server.busy`. */
  readonly most: number;
}

/** A thread of its own that answers questions; it is begun with the first of them, and again where it fell. */
export class AskedThread<Q, A> {
  private worker: Worker | undefined;
  private readonly waiting = new Map<number, Waiting<A>>();
  private last = 0;

  /** @param data what the thread begins with */
  constructor(
    private readonly program: Program,
    private readonly limits: Limits,
    private readonly data?: unknown,
  ) {}

  /** @throws Refusal the thread's own, `server.busy`, or `server.thinking` where it fell */
  ask(question: Q, transfer: readonly TransferListItem[] = []): Promise<A> {
    if (this.waiting.size >= this.limits.most)
      return Promise.reject(Refusal.of('server.busy', '', { count: this.waiting.size }));
    const number = (this.last += 1);
    return new Promise((resolve, reject) => {
      this.waiting.set(number, { resolve, reject });
      this.opened().postMessage({ number, question } satisfies Asked<Q>, [...transfer]);
    });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private opened(): Worker {
    if (this.worker) return this.worker;
    const worker = openWorker(this.program, this.data, { resourceLimits: this.limits.memory });
    this.worker = worker;
    worker.on('message', (answered: Answered<A>) => this.answered(answered));
    worker.once('error', (error) => this.fell(worker, error.message));
    worker.once('exit', () => this.fell(worker, FALL_WORDS.threadEnded));
    worker.unref();
    return worker;
  }

  private answered(answered: Answered<A>): void {
    const waiting = this.waiting.get(answered.number);
    this.waiting.delete(answered.number);
    if ('answer' in answered) waiting?.resolve(answered.answer);
    else if ('refused' in answered)
      waiting?.reject(new Refusal(answered.refused, answered.conflicts));
    else waiting?.reject(Refusal.of('server.thinking', '', { why: answered.failed }));
  }

  private fell(worker: Worker, why: string): void {
    if (this.worker !== worker) return;
    this.worker = undefined;
    for (const { reject } of this.waiting.values())
      reject(Refusal.of('server.thinking', '', { why }));
    this.waiting.clear();
  }
}

/**
 * The thread's side: answers one question after the other.
 * @param transferOf what of an answer is handed over and not copied
 */
export function answerInTurn<Q, A>(
  answer: (question: Q) => A | Promise<A>,
  transferOf: (answer: A) => readonly TransferListItem[] = () => [],
): void {
  let before: Promise<unknown> = Promise.resolve();
  const say = (answered: Answered<A>, transfer: readonly TransferListItem[] = []) =>
    parentPort?.postMessage(answered, [...transfer]);
  parentPort?.on('message', ({ number, question }: Asked<Q>) => {
    before = before.then(async () => {
      try {
        const made = await answer(question);
        say({ number, answer: made }, transferOf(made));
      } catch (error) {
        if (error instanceof Refusal)
          say({ number, refused: error.issues, conflicts: error.conflicts });
        else say({ number, failed: error instanceof Error ? error.message : String(error) });
      }
    });
  });
}
