import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import {
  ETHERTYPE,
  u16,
  type ArpPacket,
  type Dissected,
  type EthernetFrame,
} from '@ipsonomo/core/wire';
import { FieldRefusal, type FieldPlan, type FieldTarget } from '../../protocol';
import type { Unit } from '../unit';

/** A controller that talks with a device asks for it again within this time (common practice, no source). */
const HOLDS = 120_000;
/** Frame ids of cyclic data over layer 2 (IEC 61158-6-10, from memory). */
const CYCLIC = { first: 0x8000, last: 0xfbff } as const;
const MOST = 4096;

interface Sign {
  readonly by: string;
  readonly at: number;
}

/**
 * R-IN-USE: signs that a controller works with a device, seen without a word of ours: it asked for the
 * address the device has (ARP goes to everybody, so any socket shows it), or cyclic data goes to and fro
 * (where the port mirrors another, or stands in the line). Their absence says nothing.
 */
export class UseSigns implements Unit {
  private readonly controllers = new Set<Ipv4>();
  private readonly asked = new Map<Ipv4, Sign & { readonly from: Ipv4 }>();
  private readonly exchanged = new Map<MacAddress, Sign>();

  plan({ targets }: FieldPlan): void {
    this.controllers.clear();
    for (const { controllerAt } of targets) for (const at of controllerAt) this.controllers.add(at);
  }

  frame(frame: Dissected, _bytes: Uint8Array, now: number): void {
    if (frame.kind === 'arp') this.arp(frame.arp, now);
    else if (frame.kind === 'lldp' || frame.kind === 'ethernet') this.cyclic(frame.ethernet, now);
  }

  private arp({ operation, senderAddress, targetAddress }: ArpPacket, now: number): void {
    if (operation !== 'request' || senderAddress === targetAddress) return;
    if (!this.controllers.has(senderAddress)) return;
    keep(this.asked, targetAddress, {
      by: formatIpv4(senderAddress),
      from: senderAddress,
      at: now,
    });
  }

  private cyclic({ etherType, from, to, payload }: EthernetFrame, now: number): void {
    if (etherType !== ETHERTYPE.discovery || payload.length < 2) return;
    const id = u16(payload, 0);
    if (id < CYCLIC.first || id > CYCLIC.last) return;
    keep(this.exchanged, from, { by: formatMac(to), at: now });
    keep(this.exchanged, to, { by: formatMac(from), at: now });
  }

  /**
   * Refuses with `device.mayBeUsed`, naming who and how long ago.
   * @param at where the device was seen in this run
   */
  refuse({ title, mac, controllerAt }: FieldTarget, at: Ipv4 | undefined, now: number): void {
    const asked = at === undefined ? undefined : this.asked.get(at);
    const signs = [
      ['exchanges', mac === undefined ? undefined : this.exchanged.get(mac)],
      ['asked', asked && controllerAt.includes(asked.from) ? asked : undefined],
    ] as const;
    for (const [sign, seen] of signs) {
      if (!seen || now - seen.at > HOLDS) continue;
      const seconds = Math.round((now - seen.at) / 1000);
      throw FieldRefusal.of('device.mayBeUsed', { title, sign, by: seen.by, seconds });
    }
  }

  forget(): void {
    this.asked.clear();
    this.exchanged.clear();
  }
}

/** The one that was silent longest goes first. */
function keep<K, V>(map: Map<K, V>, key: K, value: V): void {
  map.delete(key);
  map.set(key, value);
  if (map.size <= MOST) return;
  const [oldest] = map.keys();
  if (oldest !== undefined) map.delete(oldest);
}
