import type { Ipv4, MacAddress } from '@ipsonomo/core';

const MOST = 4096;

/** Who was seen with which address in this run; the one that was silent longest goes first. */
export class Present {
  private readonly addresses = new Map<MacAddress, Ipv4>();

  saw(mac: MacAddress, address: Ipv4): void {
    this.addresses.delete(mac);
    this.addresses.set(mac, address);
    if (this.addresses.size <= MOST) return;
    const [oldest] = this.addresses.keys();
    if (oldest !== undefined) this.addresses.delete(oldest);
  }

  addressOf(mac: MacAddress): Ipv4 | undefined {
    return this.addresses.get(mac);
  }

  macs(): Iterable<MacAddress> {
    return this.addresses.keys();
  }

  all(): Iterable<readonly [MacAddress, Ipv4]> {
    return this.addresses;
  }

  clear(): void {
    this.addresses.clear();
  }
}
