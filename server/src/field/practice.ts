import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { MessageChannel, Worker, type MessagePort } from 'node:worker_threads';
import type { CabinetAction, CabinetView } from '@ipsonomo/core';
import type { PracticeCommand, PracticeReport } from '@ipsonomo/practice/src/practice.worker';

/** Starts a worker from the bundle, or from the TypeScript source where there is no bundle. */
export function startWorker(bundle: string, source: string, data: unknown): Worker {
  const bundled = join(__dirname, bundle);
  if (existsSync(bundled)) return new Worker(bundled, { workerData: data });
  const execArgv = ['--require', require.resolve('tsx/cjs')];
  return new Worker(join(__dirname, source), { workerData: data, execArgv });
}

/** The practice site in its own worker, seen from the server. */
export class Practice {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, (view: CabinetView) => void>();
  private count = 0;

  constructor() {
    this.worker = startWorker(
      'practice.worker.js',
      '../../../practice/src/practice.worker.ts',
      undefined,
    );
    this.worker.on('message', ({ id, view }: PracticeReport) => {
      this.waiting.get(id)?.(view);
      this.waiting.delete(id);
    });
  }

  /** A new cable into the site's socket; the one before it is pulled. */
  wire(): MessagePort {
    const { port1, port2 } = new MessageChannel();
    const command: PracticeCommand = { kind: 'wire', port: port1 };
    this.worker.postMessage(command, [port1]);
    return port2;
  }

  /** Does something at the cabinets, or only looks, and tells how they stand then. */
  act(action: CabinetAction | undefined): Promise<CabinetView> {
    this.count += 1;
    const id = this.count;
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      this.worker.postMessage({ kind: 'act', id, action } satisfies PracticeCommand);
    });
  }

  async close(): Promise<void> {
    await this.worker.terminate();
  }
}
