import { decide, type AnswerEntry } from '@ipsonomo/core/answering';
import {
  BROADCAST_MAC,
  formatMac,
  must,
  parseIpv4,
  parseMac,
  toPrefixLength,
  ZERO_MAC,
  type Ipv4,
} from '@ipsonomo/core/net';
import {
  arpFrame,
  dhcpFrame,
  DHCP_PORT,
  tryDissect,
  DecodeError,
  type Dissected,
} from '@ipsonomo/core/wire';
import { PracticeSite, TERN_COVE, type SiteDefinition } from '../src';

export const ip = (text: string) => must(parseIpv4(text));
export const mac = (text: string) => must(parseMac(text));
export const LAPTOP = mac('02:00:5e:00:53:f0');
export const LAPTOP_IP = ip('172.22.40.250');

/** A seeded generator: the same site lives the same life in every run. */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** A practice site under a clock that the test moves, with everything the laptop hears. */
export class Bench {
  now = 0;
  readonly heard: Dissected[] = [];
  readonly frames: Uint8Array[] = [];
  readonly site: PracticeSite;
  private readonly entries = new Map<number, AnswerEntry>();

  constructor(definition: SiteDefinition = TERN_COVE) {
    this.site = new PracticeSite(definition, seeded(7), (frame) => this.hear(frame), 0);
  }

  bind(macText: string, give: string): void {
    this.entries.set(mac(macText), {
      mac: mac(macText),
      give: ip(give),
      length: toPrefixLength(24),
      gateway: ip('172.22.40.1'),
      hostName: undefined,
      leaseSeconds: 600,
    });
  }

  advance(millis: number): void {
    const until = this.now + millis;
    for (let next = this.site.nextAt(); next <= until; next = this.site.nextAt()) {
      this.now = Math.max(this.now, next);
      this.site.run(this.now);
    }
    this.now = until;
  }

  askArp(target: string): readonly string[] {
    const before = this.heard.length;
    this.site.fromLaptop(
      arpFrame(LAPTOP, BROADCAST_MAC, {
        operation: 'request',
        senderMac: LAPTOP,
        senderAddress: LAPTOP_IP,
        targetMac: ZERO_MAC,
        targetAddress: ip(target),
      }),
      this.now,
    );
    return this.heard
      .slice(before)
      .flatMap((one) => (one.kind === 'arp' ? [formatMac(one.arp.senderMac)] : []));
  }

  requestsOf(macText: string): readonly Dissected[] {
    return this.heard.filter((one) => one.kind === 'dhcp' && one.dhcp.clientMac === mac(macText));
  }

  device(id: string) {
    const found = this.site.view(this.now).devices.find((one) => one.id === id);
    if (!found) throw new Error(id);
    return found;
  }

  private hear(frame: Uint8Array): void {
    const dissected = tryDissect(frame);
    if (dissected instanceof DecodeError) throw dissected;
    this.heard.push(dissected);
    this.frames.push(frame);
    if (dissected.kind === 'dhcp') this.answer(dissected.dhcp.clientMac, dissected);
  }

  private answer(client: number, request: Dissected & { kind: 'dhcp' }): void {
    const entry = this.entries.get(client);
    const verdict = entry && decide(entry, request.dhcp, LAPTOP_IP as Ipv4);
    if (verdict?.kind !== 'reply') return;
    const ends = {
      from: LAPTOP_IP,
      fromPort: DHCP_PORT.server,
      to: verdict.to.address,
      toPort: verdict.to.port,
    };
    this.site.fromLaptop(dhcpFrame(LAPTOP, ends, verdict.message), this.now);
  }
}
