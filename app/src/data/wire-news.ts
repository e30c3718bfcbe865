import { useSyncExternalStore } from 'react';
import type { QueryClient } from '@tanstack/react-query';
import { applyHeardNews, type FieldView, type HeardNews, type HeardView } from '@ipsonomo/core/api';
import { keys } from '@ipsonomo/contract';
import { isHidden } from './use-now';

// What is told of the wire, several times a second while a plant talks, and what of it a page is drawn again for.

/** How the wire stands: drawn again only where it stands otherwise. */
export type FieldNow = Omit<FieldView, 'now' | keyof Traffic>;

/** What changes with every frame: for who shows just that. */
export type Traffic = Pick<FieldView, 'counters' | 'socket'>;

/** By how much the server's clock is ahead of this one. */
let skew = 0;
const watchers = new Set<() => void>();
/** News take their time to come; a clock that jumps by that would be drawn for nothing. */
const LEAST_SKEW = 100;

/** The server's time of the last news, by client. */
const lastNow = new WeakMap<QueryClient, number>();

/** The wire as told last, by the server's clock: an answer may arrive after newer news. */
export function putField(
  client: QueryClient,
  { now, counters, socket, ...field }: FieldView,
): void {
  if ((lastNow.get(client) ?? 0) > now) return;
  lastNow.set(client, now);
  putSkew(now - Date.now());
  client.setQueryData<FieldNow>(keys.field, field);
  client.setQueryData<Traffic>(keys.traffic, { counters, socket });
}

function putSkew(next: number): void {
  if (Math.abs(next - skew) < LEAST_SKEW) return;
  skew = next;
  for (const watcher of watchers) watcher();
}

const watch = (watcher: () => void) => {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
};

export const useSkew = (): number => useSyncExternalStore(watch, () => skew);

/** So often a list of those that ask is drawn anew; who asks first is seen at once. */
const HEARD_PAUSE = 400;

/** Those that ask, told as they ask: put together, so that a page is drawn twice a second and not seven times. */
export class HeardTaker {
  private waiting: HeardNews[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private lastAt = -Infinity;

  constructor(private readonly client: QueryClient) {
    globalThis.document?.addEventListener('visibilitychange', this.shown);
  }

  take(news: HeardNews): void {
    this.waiting.push(news);
    const wait = this.lastAt + HEARD_PAUSE - performance.now();
    if (wait <= 0) this.put();
    else this.timer ??= setTimeout(() => this.put(), wait);
  }

  close(): void {
    clearTimeout(this.timer);
    globalThis.document?.removeEventListener('visibilitychange', this.shown);
  }

  private readonly shown = (): void => {
    if (!isHidden() && this.waiting.length > 0) this.put();
  };

  /** While nobody sees it, it is only noted. */
  private put(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    if (isHidden() && this.waiting.length < MOST_NOTED) return;
    this.lastAt = performance.now();
    const due = this.waiting;
    this.waiting = [];
    this.client.setQueryData<readonly HeardView[]>(keys.heard, (known) =>
      due.reduce(applyHeardNews, known ?? []),
    );
  }
}

const MOST_NOTED = 200;
