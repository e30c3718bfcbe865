import type { TransferListItem, Worker } from 'node:worker_threads';
import { openWorker, type Program } from './open-worker';
import type { Time } from './time';

export interface ThreadEvents {
  message(message: unknown): void;
  /** It fell over and a new one was started; what was asked of the old one is lost. @param why it fell */
  restarted(why: string): void;
}

/** A worker thread that is started again should it ever fall over. */
export class Thread {
  private worker: Worker;
  private isClosing = false;
  private fellBy = '';

  constructor(
    private readonly program: Program,
    private readonly data: object,
    private readonly time: Time,
    private readonly events: ThreadEvents,
    private readonly log: (line: string) => void,
  ) {
    this.worker = this.start();
  }

  post(message: unknown, transfer: readonly TransferListItem[] = []): void {
    this.worker.postMessage(message, [...transfer]);
  }

  async close(): Promise<void> {
    this.isClosing = true;
    await this.worker.terminate();
  }

  private start(): Worker {
    const { conducted, transfer, ended } = this.time.forThread();
    const worker = openWorker(this.program, { ...this.data, conducted }, { transfer });
    worker.on('message', (message) => this.events.message(message));
    worker.on('error', (error) => {
      this.fellBy = error.message;
      this.log(`${this.program.bundle} fell over: ${error.stack ?? error.message}`);
    });
    worker.once('exit', () => {
      ended();
      if (this.isClosing) return;
      this.worker = this.start();
      this.events.restarted(this.fellBy);
    });
    return worker;
  }
}
