import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { CabinetAction, CabinetView } from '@ipsonomo/core/api';
import type { RehearsedPlan } from '@ipsonomo/practice';
import type { PracticeCommand, PracticeReport } from '@ipsonomo/practice/src/practice.worker';
import { Thread, type Time } from '@ipsonomo/threads';

const PROGRAM = {
  bundle: 'practice.worker.js',
  source: 'practice/src/practice.worker.ts',
};

/** The practice site in its own thread, seen from the server. */
export class Practice {
  private readonly thread: Thread;
  private readonly waiting = new Map<number, (view: CabinetView) => void>();
  private count = 0;
  /** What was put right since it began: a site that is started again has it wrong anew. */
  private readonly righted: string[] = [];

  /** @param rehearsed the plan its site is made of; without one it is the site that ships with Ipsonomo */
  constructor(time: Time, log: (line: string) => void, rehearsed?: RehearsedPlan) {
    const message = (report: unknown) => this.take(report as PracticeReport);
    // The new site is as delivered; whoever waited looks at that.
    const restarted = () => {
      for (const mistake of this.righted) this.send({ kind: 'right', mistake });
      for (const id of this.waiting.keys()) this.send({ kind: 'act', id, action: undefined });
    };
    this.thread = new Thread(PROGRAM, { rehearsed }, time, { message, restarted }, log);
  }

  /** A new cable into the site's socket; the one before it is pulled. */
  wire(): MessagePort {
    const { port1, port2 } = new MessageChannel();
    this.thread.post({ kind: 'wire', port: port1 } satisfies PracticeCommand, [port1]);
    return port2;
  }

  /** Does something at the cabinets, or only looks, and tells how they stand then. */
  act(action: CabinetAction | undefined): Promise<CabinetView> {
    this.count += 1;
    const id = this.count;
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      this.send({ kind: 'act', id, action });
    });
  }

  /** Puts right what is wrong from the beginning. */
  putRight(mistake: string): void {
    this.righted.push(mistake);
    this.send({ kind: 'right', mistake });
  }

  close(): Promise<void> {
    return this.thread.close();
  }

  private send(command: PracticeCommand): void {
    this.thread.post(command);
  }

  private take({ id, view }: PracticeReport): void {
    this.waiting.get(id)?.(view);
    this.waiting.delete(id);
  }
}
