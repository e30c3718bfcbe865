import type { Sighting } from '../../protocol';
import type { Unit } from '../unit';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';

const MOST = 4096;
/** A router that answers for others has all their addresses; so many show that. */
const MOST_EACH = 16;

/** Who was seen with which addresses in this run; the one that was silent longest goes first. */
export class Present implements Unit {
  private readonly seen = new Map<MacAddress, Map<Ipv4, number>>();

  /** @param told somebody was seen with an address that is news, or nobody is known any more */
  constructor(private readonly told: () => void = () => undefined) {}

  sighting(address: Ipv4, mac: MacAddress, _frame: Uint8Array, now: number): void {
    if (this.saw(mac, address, now)) this.told();
  }

  /** @returns whether that is news */
  saw(mac: MacAddress, address: Ipv4, now: number): boolean {
    const addresses = this.seen.get(mac) ?? new Map<Ipv4, number>();
    const isNews = !addresses.has(address) && addresses.size < MOST_EACH;
    this.seen.delete(mac);
    this.seen.set(mac, addresses);
    if (isNews || addresses.has(address)) {
      addresses.delete(address);
      addresses.set(address, now);
    }
    if (this.seen.size > MOST) {
      const [oldest] = this.seen.keys();
      if (oldest !== undefined) this.seen.delete(oldest);
    }
    return isNews;
  }

  /** The address a MAC was seen with last. */
  addressOf(mac: MacAddress): Ipv4 | undefined {
    return [...(this.seen.get(mac)?.keys() ?? [])].at(-1);
  }

  macs(): Iterable<MacAddress> {
    return this.seen.keys();
  }

  get all(): readonly Sighting[] {
    return [...this.seen].flatMap(([mac, addresses]) =>
      [...addresses].map(([address, lastAt]) => ({ mac, address, lastAt })),
    );
  }

  forget(): void {
    this.seen.clear();
    this.told();
  }
}
