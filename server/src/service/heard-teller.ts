import type { HeardNews } from '@ipsonomo/core/api';
import { formatMac } from '@ipsonomo/core/net';
import { type HeardChange, HeardChanges } from '@ipsonomo/wire';
import { heardView } from './wire-views';

/** News of the wire go to open pages at most this often, and slower while there are very many. */
const TELL_EVERY = 200;
const MANY = 200;
const TELL_MANY_EVERY = 1000;

/** Tells open pages what changed in what was heard since they were last told. */
export class HeardTeller {
  private readonly changes = new HeardChanges();
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly jobId: string,
    private readonly tell: (news: HeardNews) => void,
  ) {}

  take(change: HeardChange): void {
    this.changes.add(change);
    const pause = this.changes.size > MANY ? TELL_MANY_EVERY : TELL_EVERY;
    this.timer ??= setTimeout(() => this.flush(), pause);
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private flush(): void {
    this.timer = undefined;
    const change = this.changes.drain();
    if (!change) return;
    const { all, clients, forgotten } = change;
    this.tell({
      ...{ jobId: this.jobId, all },
      ...{ clients: clients.map(heardView), forgotten: forgotten.map(formatMac) },
    });
  }
}
