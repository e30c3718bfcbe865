import type { HeardClient } from '@ipsonomo/core/answering';
import type { MacAddress } from '@ipsonomo/core/net';
import type { HeardChange } from './seen';

/** Gathers changes of what was heard until somebody is told of all of them at once. */
export class HeardChanges {
  private readonly clients = new Map<MacAddress, HeardClient>();
  private readonly forgotten = new Set<MacAddress>();
  private all = false;

  /** How many clients there is news of. */
  get size(): number {
    return this.clients.size;
  }

  /** Later changes win; `all` makes everything before it void. */
  add({ all = false, clients = [], forgotten = [] }: Partial<HeardChange>): void {
    if (all) {
      this.clear();
      this.all = true;
    }
    for (const mac of forgotten) {
      this.clients.delete(mac);
      this.forgotten.add(mac);
    }
    for (const client of clients) {
      this.clients.set(client.mac, client);
      this.forgotten.delete(client.mac);
    }
  }

  /** Everything gathered since the last time; undefined where there is nothing to tell. */
  drain(): HeardChange | undefined {
    const { all } = this;
    if (!all && this.clients.size === 0 && this.forgotten.size === 0) return undefined;
    const change = { all, clients: [...this.clients.values()], forgotten: [...this.forgotten] };
    this.clear();
    return change;
  }

  private clear(): void {
    this.clients.clear();
    this.forgotten.clear();
    this.all = false;
  }
}
