import type { Worker } from 'node:worker_threads';
import type { HeardClient, MacAddress } from '@ipsonomo/core';
import { startWorker } from './practice';
import {
  FieldRefusal,
  IDLE,
  type FieldCommand,
  type FieldEvent,
  type FieldReport,
  type FieldStatus,
  type HeardChange,
} from './protocol';

export interface FieldListener {
  status(status: FieldStatus): void;
  heard(change: HeardChange): void;
  events(events: readonly FieldEvent[]): void;
}

/** The wire as the server's main thread sees it. */
export class Field {
  private readonly worker: Worker;
  private readonly waiting = new Map<
    number,
    { readonly resolve: () => void; readonly reject: (error: Error) => void }
  >();
  private readonly clients = new Map<MacAddress, HeardClient>();
  private count = 0;
  private current: FieldStatus = IDLE;

  constructor(
    folder: string,
    private readonly listener: FieldListener,
  ) {
    this.worker = startWorker('field.worker.js', 'field.worker.ts', { folder });
    this.worker.on('message', (report: FieldReport) => this.take(report));
  }

  get status(): FieldStatus {
    return this.current;
  }

  get heard(): readonly HeardClient[] {
    return [...this.clients.values()];
  }

  /** Resolves once the command was carried out; rejects with FieldRefusal. */
  call(command: FieldCommand): Promise<void> {
    this.count += 1;
    const id = this.count;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      const transfer = command.kind === 'open-practice' ? [command.port] : [];
      this.worker.postMessage({ id, command }, transfer);
    });
  }

  async close(): Promise<void> {
    await this.call({ kind: 'rest' });
    await this.worker.terminate();
  }

  private take(report: FieldReport): void {
    switch (report.kind) {
      case 'answer': {
        const call = this.waiting.get(report.id);
        this.waiting.delete(report.id);
        if (report.error) call?.reject(new FieldRefusal(report.error.code, report.error.facts));
        else call?.resolve();
        return;
      }
      case 'status':
        this.current = report.status;
        this.listener.status(report.status);
        return;
      case 'heard':
        if (report.all) this.clients.clear();
        for (const mac of report.forgotten) this.clients.delete(mac);
        for (const client of report.clients) this.clients.set(client.mac, client);
        this.listener.heard(report);
        return;
      case 'events':
        this.listener.events(report.events);
    }
  }
}
