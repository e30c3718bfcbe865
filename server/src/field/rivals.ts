import {
  BROADCAST_FLAG,
  DHCP_PORT,
  dhcpFrame,
  dhcpMessageOf,
  findOption,
  formatIpv4,
  formatMac,
  LIMITED_BROADCAST,
  messageTypeCode,
  OPTION,
  rawOption,
  UNSPECIFIED,
  type DhcpMessage,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { DhcpFrame } from './entries';
import type { FieldNotice, FieldSubnet, FieldTask } from './protocol';

export interface RivalEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  needVoice(subnetId: string): void;
  voice(subnetId: string): Ipv4 | undefined;
  /** What the plan calls the device that a MAC belongs to. */
  titleOf(mac: MacAddress): string | undefined;
  isArmed(now: number): boolean;
  /** Nobody unexpected answered: now devices are answered. */
  arm(until: number, now: number): void;
  disarm(): void;
  notice(code: FieldNotice['code'], facts: FieldNotice['facts']): void;
  changed(): void;
}

/** Some servers ping an address for seconds before they offer it (measured with dnsmasq). */
const LISTEN = 5000;
const ASK_AGAIN = 1500;
const ASKS = 2;
/** So long a look counts. */
const FRESH = 10 * 60_000;
const TRANSACTION = 0x4950_0100;

interface Look {
  readonly endsAt: number;
  readonly millis: number;
  asked: number;
  nextAt: number;
}

/**
 * R-RIVAL: other DHCP servers on this wire. They are looked for before anything is answered, by a DISCOVER and
 * an INFORM of our own, since some answer only the one and some only the other, and one that serves known
 * devices alone answers neither. One that the plan does not expect stops us, and so does an expected one that
 * answers one of ours: two servers are one too many for a device.
 */
export class Rivals {
  private look: Look | undefined;
  private lookedAt = -Infinity;
  private subnets: readonly FieldSubnet[] = [];

  constructor(private readonly events: RivalEvents) {}

  plan(subnets: readonly FieldSubnet[]): void {
    this.subnets = subnets;
  }

  /** Answers for so long; first, unless that was done lately, others are looked for. */
  arm(millis: number, now: number): void {
    if (this.events.isArmed(now) || now - this.lookedAt < FRESH) {
      this.events.arm(now + millis, now);
      return;
    }
    this.look = { endsAt: now + LISTEN, millis, asked: 0, nextAt: now };
    for (const { id } of this.subnets.slice(0, 1)) this.events.needVoice(id);
  }

  clear(): void {
    this.look = undefined;
  }

  /** Another run, or another wire: what was found out does not count there. */
  forget(): void {
    this.lookedAt = -Infinity;
  }

  tasks(): readonly FieldTask[] {
    return this.look
      ? [{ kind: 'look-for-servers', interfaceId: undefined, phase: 'looking' }]
      : [];
  }

  nextAt(): number {
    return this.look ? Math.min(this.look.nextAt, this.look.endsAt) : Infinity;
  }

  run(now: number): void {
    const { look } = this;
    if (!look) return;
    if (now >= look.endsAt) {
      this.look = undefined;
      this.lookedAt = now;
      this.events.notice('no-other-server', { seconds: LISTEN / 1000 });
      this.events.arm(now + look.millis, now);
      this.events.changed();
      return;
    }
    if (now < look.nextAt) return;
    look.asked += 1;
    look.nextAt = look.asked < ASKS ? now + ASK_AGAIN : Infinity;
    this.ask();
  }

  /** A reply that is not ours. */
  reply({ dhcp, ip, ethernet }: DhcpFrame, now: number): void {
    const server = findOption(dhcp.options ?? [], OPTION.serverId) ?? ip.from;
    this.answers(dhcp.clientMac, server, { mac: formatMac(ethernet.from) }, now);
  }

  /** A client took the offer of this server; a switch may have hidden that offer from us. */
  chosen(client: MacAddress, server: Ipv4, now: number): void {
    this.answers(client, server, {}, now);
  }

  private answers(client: MacAddress, server: Ipv4, who: FieldNotice['facts'], now: number): void {
    const isExpected = this.subnets.some(({ servers }) => servers.includes(server));
    const ours = this.events.titleOf(client);
    if (isExpected && ours === undefined) return;
    const wasSending = this.look !== undefined || this.events.isArmed(now);
    this.look = undefined;
    this.lookedAt = -Infinity;
    if (wasSending) {
      this.events.disarm();
      this.events.changed();
    }
    const facts = { server: formatIpv4(server), ...who, expected: isExpected ? 'yes' : 'no' };
    this.events.notice('other-server', ours === undefined ? facts : { ...facts, answered: ours });
  }

  private ask(): void {
    this.say('DISCOVER', UNSPECIFIED);
    for (const { id } of this.subnets) {
      const voice = this.events.voice(id);
      if (voice !== undefined) this.say('INFORM', voice);
    }
  }

  private say(type: 'DISCOVER' | 'INFORM', from: Ipv4): void {
    const message: DhcpMessage = dhcpMessageOf({
      ...{ operation: 'request', transaction: TRANSACTION, clientMac: this.events.mac },
      ...{ flags: BROADCAST_FLAG, clientAddress: from },
      options: [rawOption(OPTION.messageType, messageTypeCode(type))],
    });
    const ends = { fromPort: DHCP_PORT.client, toPort: DHCP_PORT.server };
    this.events.transmit(
      dhcpFrame(this.events.mac, { ...ends, from, to: LIMITED_BROADCAST }, message),
    );
  }
}
