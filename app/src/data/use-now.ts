import { useEffect, useState } from 'react';

/** The time, told anew every second; `skew` moves it onto the server's clock. */
export function useNow(skew = 0): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return now + skew;
}
