import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';

/** Longer than a timer can wait. */
const LONGEST_WAIT = 2_000_000_000;

/**
 * The time as it was when the last of these times passed, or when it was first asked for: drawn again when one does,
 * and not by a clock.
 * @param skew as for `useNow`
 */
export function useTimeOf(times: readonly number[], skew = 0): number {
  const [now, setNow] = useState(() => Date.now() + skew);
  const next = useMemo(
    () => times.reduce((first, time) => (time > now && time < first ? time : first), Infinity),
    [times, now],
  );
  useEffect(() => {
    if (next === Infinity) return undefined;
    const wait = Math.min(LONGEST_WAIT, Math.max(0, next - skew - Date.now()) + 1);
    const timer = setTimeout(() => setNow(Date.now() + skew), wait);
    return () => clearTimeout(timer);
  }, [next, skew, now]);
  return now;
}

export const isHidden = (): boolean => globalThis.document?.visibilityState === 'hidden';

/** One clock for all that shows the time: they are drawn together, and not at all while nobody can see them. */
let current = Date.now();
let timer: ReturnType<typeof setInterval> | undefined;
const watchers = new Set<() => void>();

function tick(): void {
  if (isHidden()) return;
  current = Date.now();
  for (const watcher of watchers) watcher();
}

function watch(watcher: () => void): () => void {
  if (watchers.size === 0) {
    current = Date.now();
    timer = setInterval(tick, 1000);
    globalThis.document?.addEventListener('visibilitychange', tick);
  }
  watchers.add(watcher);
  return () => {
    watchers.delete(watcher);
    if (watchers.size > 0) return;
    clearInterval(timer);
    globalThis.document?.removeEventListener('visibilitychange', tick);
  };
}

/**
 * The time, told anew every second while somebody can see it; `skew` moves it onto the server's clock. A page that comes
 * to the front again has the time at once.
 */
export function useNow(skew = 0): number {
  return useSyncExternalStore(watch, () => current) + skew;
}
