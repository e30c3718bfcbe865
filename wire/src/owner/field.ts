import type { HeardClient } from '@ipsonomo/core/answering';
import type { MacAddress } from '@ipsonomo/core/net';
import { Thread, type Time } from '@ipsonomo/threads';
import {
  type FieldCommand,
  type FieldEvent,
  FieldRefusal,
  type FieldReport,
  type FieldStatus,
  type FoundStation,
  type HeardChange,
  IDLE,
  type Sighting,
  VigilRing,
} from '../protocol';
import { readLines } from '../kept/journal';

export interface FieldListener {
  status(status: FieldStatus): void;
  heard(change: HeardChange): void;
  stations(stations: readonly FoundStation[]): void;
  present(present: readonly Sighting[]): void;
  events(events: readonly FieldEvent[]): void;
  /** The thread of the wire was started anew. */
  fell(why: string): void;
}

const PROGRAM = { bundle: 'wire.worker.js', source: 'wire/src/wire.worker.ts' };

/** The wire as the server's main thread sees it. */
export class Field {
  private readonly thread: Thread;
  private readonly waiting = new Map<
    number,
    { readonly resolve: () => void; readonly reject: (error: Error) => void }
  >();
  private readonly clients = new Map<MacAddress, HeardClient>();
  private found: readonly FoundStation[] = [];
  private seen: readonly Sighting[] = [];
  private ring: VigilRing | undefined;
  private count = 0;
  private current: FieldStatus = IDLE;

  /** @param of its folder of captures and journals, and the name of what else it keeps there */
  constructor(
    of: { readonly folder: string; readonly name: string },
    time: Time,
    private readonly listener: FieldListener,
    log: (line: string) => void,
  ) {
    const message = (report: unknown) => this.take(report as FieldReport);
    const restarted = (why: string) => this.restarted(why);
    this.thread = new Thread(PROGRAM, of, time, { message, restarted }, log);
  }

  get status(): FieldStatus {
    return this.current;
  }

  get heard(): readonly HeardClient[] {
    return [...this.clients.values()];
  }

  get stations(): readonly FoundStation[] {
    return this.found;
  }

  /** The beats of the vigil that goes on, or of the last one. */
  get vigil(): VigilRing | undefined {
    return this.ring;
  }

  get present(): readonly Sighting[] {
    return this.seen;
  }

  /** Resolves once the command was carried out; rejects with FieldRefusal. */
  call(command: FieldCommand): Promise<void> {
    this.count += 1;
    const id = this.count;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      const transfer = 'port' in command ? [command.port] : [];
      this.thread.post({ id, command }, transfer);
    });
  }

  async close(): Promise<void> {
    await this.call({ kind: 'rest' });
    await this.thread.close();
    this.refuseAll('field.noWire');
  }

  /** What was asked and will not be answered any more. */
  private refuseAll(code: 'field.noWire' | 'field.fellOver'): void {
    const error = FieldRefusal.of(code);
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }

  /** The new thread has no wire, no plan and no run: a person has to begin again. */
  private restarted(why: string): void {
    this.refuseAll('field.fellOver');
    this.take({ kind: 'status', status: IDLE });
    this.take({ kind: 'heard', all: true, clients: [], forgotten: [] });
    this.take({ kind: 'stations', stations: [] });
    this.take({ kind: 'present', present: [] });
    this.listener.fell(why);
  }

  private take(report: FieldReport): void {
    switch (report.kind) {
      case 'answer': {
        const call = this.waiting.get(report.id);
        this.waiting.delete(report.id);
        if (report.error) call?.reject(new FieldRefusal(report.error));
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
      case 'stations':
        this.found = report.stations;
        this.listener.stations(report.stations);
        return;
      case 'present':
        this.seen = report.present;
        this.listener.present(report.present);
        return;
      case 'vigil':
        this.ring = new VigilRing(report.vigil);
        return;
      case 'events':
        this.listener.events(readLines(report.lines).events);
    }
  }
}
