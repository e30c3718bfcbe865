import { Refusal } from '../store/refusal';

/** So many wrong passwords in a quarter of an hour, for one name, from addresses that it never came in from. */
const MOST = 10;
const WINDOW = 15 * 60_000;
/** No more names are remembered: whoever invents them makes older ones forgotten. */
const MOST_NAMES = 10_000;

interface Count {
  count: number;
  until: number;
}

/** Wrong passwords, counted so that guessing is slow and nobody is locked out by others. */
export class Tries {
  private readonly counts = new Map<string, Count>();
  /** Addresses from which a name came in before. */
  private readonly own = new Map<string, ReadonlySet<string>>();

  constructor(private readonly clock: () => number) {}

  /** Refuses with `door.slow`, saying for how long. */
  need(name: string, from: string): void {
    const known = this.counts.get(this.keyOf(name, from));
    const left = known ? known.until - this.clock() : 0;
    if (known && left > 0 && known.count >= MOST)
      throw Refusal.of('door.slow', '', { seconds: Math.ceil(left / 1000) });
  }

  failed(name: string, from: string): void {
    const key = this.keyOf(name, from);
    const known = this.counts.get(key);
    const now = this.clock();
    const count = known && known.until > now ? known.count + 1 : 1;
    this.counts.delete(key);
    this.counts.set(key, { count, until: now + WINDOW });
    const [oldest] = this.counts.keys();
    if (this.counts.size > MOST_NAMES && oldest !== undefined) this.counts.delete(oldest);
  }

  succeeded(name: string, from: string): void {
    this.counts.delete(this.keyOf(name, from));
    const plain = name.trim().toLowerCase();
    this.own.set(plain, new Set([...(this.own.get(plain) ?? []), from]));
  }

  private keyOf(name: string, from: string): string {
    const plain = name.trim().toLowerCase();
    return this.own.get(plain)?.has(from) ? `${plain} ${from}` : plain;
  }
}
