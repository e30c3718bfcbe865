import { pause } from '@ipsonomo/core/clock';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import { voiceIn, type VoiceEvents } from './patience';
import type { Unit } from '../unit';

export interface WhoEvents extends VoiceEvents {
  askArp(subnetId: string, address: Ipv4): void;
}

/** Long enough for a second device with the address to answer too. */
const LISTEN = 400;

/** Asks who answers for an address before a word is said to it. */
export class WhoIsAt implements Unit {
  private readonly asking = new Map<Ipv4, Set<Set<MacAddress>>>();

  constructor(private readonly events: WhoEvents) {}

  /** Everybody who answered within `millis`; `no-voice` where there is no address to ask from. */
  async ask(
    subnetId: string,
    address: Ipv4,
    millis = LISTEN,
  ): Promise<ReadonlySet<MacAddress> | 'no-voice'> {
    const from = await voiceIn(this.events, subnetId);
    if (from === undefined) return 'no-voice';
    const macs = new Set<MacAddress>();
    const all = this.asking.get(address) ?? new Set();
    this.asking.set(address, all.add(macs));
    this.events.askArp(subnetId, address);
    await pause(this.events.clock, millis);
    all.delete(macs);
    if (all.size === 0) this.asking.delete(address);
    return macs;
  }

  clear(): void {
    this.asking.clear();
  }

  sighting(address: Ipv4, mac: MacAddress): void {
    for (const macs of this.asking.get(address) ?? []) macs.add(mac);
  }
}
