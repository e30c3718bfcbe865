import { useEffect, useMemo, useState } from 'react';

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

/** The time, told anew every second; `skew` moves it onto the server's clock. */
export function useNow(skew = 0): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return now + skew;
}
