import { formatMac, type HeardClient, type HeardNews, type MacAddress } from '@ipsonomo/core';
import type { HeardChange } from '../field/protocol';
import { heardView } from './field-service';

/** News of the wire go to open pages at most this often, and slower while there are very many. */
const TELL_EVERY = 200;
const MANY = 200;
const TELL_MANY_EVERY = 1000;

/** Gathers what was heard and tells open pages what changed since they were last told. */
export class HeardTeller {
  private readonly clients = new Map<MacAddress, HeardClient>();
  private readonly forgotten = new Set<MacAddress>();
  private all = false;
  private timer: NodeJS.Timeout | undefined;

  constructor(private readonly tell: (news: HeardNews) => void) {}

  take({ all, clients, forgotten }: HeardChange): void {
    if (all) {
      this.all = true;
      this.clients.clear();
      this.forgotten.clear();
    }
    for (const mac of forgotten) {
      this.clients.delete(mac);
      this.forgotten.add(mac);
    }
    for (const client of clients) {
      this.clients.set(client.mac, client);
      this.forgotten.delete(client.mac);
    }
    const pause = this.clients.size > MANY ? TELL_MANY_EVERY : TELL_EVERY;
    this.timer ??= setTimeout(() => this.flush(), pause);
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private flush(): void {
    this.timer = undefined;
    this.tell({
      all: this.all,
      clients: [...this.clients.values()].map(heardView),
      forgotten: [...this.forgotten].map(formatMac),
    });
    this.all = false;
    this.clients.clear();
    this.forgotten.clear();
  }
}
