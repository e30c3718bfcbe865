import { useSyncExternalStore } from 'react';
import type { QueryClient, QueryKey } from '@tanstack/react-query';
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

/** The server's time of the last news, by client and job. */
const lastNow = new WeakMap<QueryClient, Map<string, number>>();

function isOld(client: QueryClient, jobId: string, now: number): boolean {
  const known = lastNow.get(client) ?? new Map<string, number>();
  lastNow.set(client, known);
  if ((known.get(jobId) ?? 0) > now) return true;
  known.set(jobId, now);
  return false;
}

/** The wire as told last, by the server's clock: an answer may arrive after newer news. @returns how it stands */
export function putField(client: QueryClient, view: FieldView): FieldNow {
  const { now, counters, socket, ...field } = view;
  const { jobId } = field;
  const known = client.getQueryData<FieldNow>(keys.field(jobId));
  if (isOld(client, jobId, now) && known) return known;
  putSkew(now - Date.now());
  putAnswering(jobId, field.answeringUntil !== null);
  client.setQueryData<Traffic>(keys.traffic(jobId), { counters, socket });
  const next = client.setQueryData<FieldNow>(keys.field(jobId), field) ?? field;
  // Where nothing but counters changed it is the same as before.
  if (next !== known) void client.invalidateQueries({ queryKey: keys.wires });
  return next;
}

/** Of these jobs the wire has threads: what was told of others is over. */
export function takeWires(client: QueryClient, open: readonly string[]): void {
  for (const job of [...answering]) if (!open.includes(job)) putAnswering(job, false);
  void client.invalidateQueries({ queryKey: keys.wires });
  const isOver = ({ queryKey: [what, job] }: { readonly queryKey: QueryKey }) =>
    typeof job === 'string' && !open.includes(job) && TOLD.has(String(what));
  for (const query of client.getQueryCache().findAll({ predicate: isOver })) {
    const { queryKey } = query;
    if (queryKey[0] === 'field') void client.invalidateQueries({ queryKey });
    else client.setQueryData(queryKey, []);
  }
}

const TOLD = new Set(['field', 'heard', 'stations', 'present']);

/** Jobs on whose wires something is answered. */
const answering = new Set<string>();

function putAnswering(jobId: string, isIt: boolean): void {
  if (answering.has(jobId) === isIt) return;
  if (isIt) answering.add(jobId);
  else answering.delete(jobId);
  for (const watcher of watchers) watcher();
}

/** On how many wires of other jobs something is answered: *Fall silent* of this one does not end that. */
export const useOthersAnswering = (job: string): number =>
  useSyncExternalStore(watch, () => answering.size - (answering.has(job) ? 1 : 0));

/** Whether anything is answered on any wire. */
export const useIsAnswering = (): boolean => useSyncExternalStore(watch, () => answering.size > 0);

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
    for (const jobId of new Set(due.map((news) => news.jobId)))
      this.client.setQueryData<readonly HeardView[]>(keys.heard(jobId), (known) =>
        due.filter((news) => news.jobId === jobId).reduce(applyHeardNews, known ?? []),
      );
  }
}

const MOST_NOTED = 200;
