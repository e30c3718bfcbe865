import type { HostAddress } from '@ipsonomo/core/host';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import {
  DISCOVERY_GROUP,
  discoveryFrame,
  identifyName,
  orderOf,
  stationOf,
  type Dissected,
  type Station,
} from '@ipsonomo/core/wire';

type DiscoveryFrame = Extract<Dissected, { kind: 'discovery' }>;

/** A station of a controller's project: by its name alone. */
export interface ProjectStation {
  readonly name: string;
  readonly at: HostAddress;
}

/** Between two rounds in which a controller looks for its stations. */
const LOOKS_EVERY = 2000;
const ANSWERS_WITHIN = 500;
/** Whom it talks with it asks for again so often. */
const ASKS_EVERY = 30_000;
const FIRST_TRANSACTION = 0x4b00_0000;

/**
 * The part of a controller that starts its stations: it asks for each name of its project and gives the one
 * that answers its address for now, at every start. A name that nobody has, or two have, gets nothing.
 */
export class StationController {
  private looksAt = Infinity;
  private judgesAt = Infinity;
  private readonly askedAt = new Map<Ipv4, number>();
  private transaction = FIRST_TRANSACTION;
  private readonly found = new Map<string, Map<MacAddress, Station>>();

  constructor(
    private readonly mac: MacAddress,
    private project: readonly ProjectStation[],
  ) {}

  /** It runs from now on, or not any more. */
  power(on: boolean, now: number): void {
    this.looksAt = on && this.project.length > 0 ? now + LOOKS_EVERY : Infinity;
    this.judgesAt = Infinity;
    this.found.clear();
    this.askedAt.clear();
  }

  rename(from: string, to: string): void {
    this.project = this.project.map((one) => (one.name === from ? { ...one, name: to } : one));
  }

  nextAt(): number {
    return Math.min(this.looksAt, this.judgesAt);
  }

  hear(frame: DiscoveryFrame): void {
    const { discovery, ethernet } = frame;
    if (discovery.act !== 'identify' || discovery.type !== 'success' || ethernet.to !== this.mac)
      return;
    const station = stationOf(ethernet.from, discovery);
    this.found.get(station.name ?? '')?.set(station.mac, station);
  }

  run(now: number): readonly Uint8Array[] {
    if (now >= this.judgesAt) {
      this.judgesAt = Infinity;
      return this.project.flatMap((one) => this.give(one));
    }
    if (now < this.looksAt) return [];
    this.looksAt = now + LOOKS_EVERY;
    this.judgesAt = now + ANSWERS_WITHIN;
    return this.project.map(({ name }) => {
      this.found.set(name, new Map());
      return discoveryFrame(this.mac, DISCOVERY_GROUP, identifyName(this.next(), name));
    });
  }

  /** Stations that have their address and that it must find again before it goes on talking with them. */
  asksFor(now: number): readonly Ipv4[] {
    if (this.judgesAt !== Infinity) return [];
    const has = (station: Station, address: Ipv4) => station.address?.address === address;
    const talksWith = this.project
      .filter(({ name, at }) =>
        [...(this.found.get(name)?.values() ?? [])].some((one) => has(one, at.address)),
      )
      .map(({ at }) => at.address)
      .filter((address) => now - (this.askedAt.get(address) ?? -Infinity) >= ASKS_EVERY);
    for (const address of talksWith) this.askedAt.set(address, now);
    return talksWith;
  }

  private give({ name, at }: ProjectStation): readonly Uint8Array[] {
    const [station, other] = [...(this.found.get(name)?.values() ?? [])];
    if (!station || other || station.address?.address === at.address) return [];
    const { address, length, gateway } = at;
    const order = { kind: 'address', address, length, gateway, stay: 'temporary' } as const;
    return [discoveryFrame(this.mac, station.mac, orderOf(this.next(), order))];
  }

  private next(): number {
    this.transaction = (this.transaction + 1) >>> 0;
    return this.transaction;
  }
}
