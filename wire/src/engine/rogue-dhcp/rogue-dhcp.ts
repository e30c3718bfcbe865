import { serverChosenBy } from '@ipsonomo/core/answering';
import {
  formatIpv4,
  formatMac,
  LIMITED_BROADCAST,
  UNSPECIFIED,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import {
  BROADCAST_FLAG,
  DHCP_PORT,
  dhcpFrame,
  dhcpMessageOf,
  findOption,
  messageTypeCode,
  messageTypeOf,
  OPTION,
  rawOption,
  type DhcpMessage,
  type Dissected,
} from '@ipsonomo/core/wire';
import type { DhcpFrame } from '../dhcp-server/entries';
import type { FieldPlan, FieldSubnet, FieldTask } from '../../protocol';
import type { Unit } from '../unit';

export interface RogueDhcpEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  needVoice(subnetId: string): void;
  voice(subnetId: string): Ipv4 | undefined;
  /** Whether Ipsonomo speaks from it. */
  isOurs(address: Ipv4): boolean;
  /** What the plan calls the device that a MAC belongs to. */
  titleOf(mac: MacAddress): string | undefined;
  isArmed(now: number): boolean;
  /** Nobody unexpected answered: now devices are answered. */
  arm(until: number, now: number): void;
  disarm(): void;
  /** A device that an expected server answers is not answered by us until then. */
  leave(client: MacAddress, until: number): void;
  notice: TellNotice;
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
  /** How long devices are answered then; undefined where they are answered all the while. */
  readonly millis: number | undefined;
  asked: number;
  nextAt: number;
}

/** After a client named another server, that one is looked for no more often than this. */
const DOUBT_EVERY = 60_000;

/** What only a server says (RFC 2131 §3.1), or plain BOOTP (RFC 951). */
const SAID_BY_SERVERS: readonly unknown[] = ['OFFER', 'ACK', 'NAK', undefined];

/**
 * R-RIVAL: other DHCP servers on this wire. They are looked for before anything is answered, by a DISCOVER and
 * an INFORM of our own, since some answer only the one and some only the other, and one that serves known
 * devices alone answers neither.
 *
 * What stops us has to be safe, and no lever in a stranger's hand:
 * - One that was seen answering and that the plan does not expect stops all answering.
 * - One that the plan expects may answer others; a device of ours that it answers is left to it, and that one alone.
 *   A person who names a server in the plan therefore goes on beside it, whoever pretends to be it.
 * - That a client names another server is hearsay: it is looked for, and nothing stops before it answers.
 * - What no server says (another message type, another port than a server's) is nobody's answer.
 */
export class RogueDhcp implements Unit {
  private look: Look | undefined;
  private lookedAt = -Infinity;
  private doubtedAt = -Infinity;
  private subnets: readonly FieldSubnet[] = [];

  constructor(private readonly events: RogueDhcpEvents) {}

  plan({ subnets }: FieldPlan): void {
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
    this.doubtedAt = -Infinity;
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
      if (look.millis !== undefined) this.events.arm(now + look.millis, now);
      this.events.changed();
      return;
    }
    if (now < look.nextAt) return;
    look.asked += 1;
    look.nextAt = look.asked < ASKS ? now + ASK_AGAIN : Infinity;
    this.ask();
  }

  frame(frame: Dissected, _bytes: Uint8Array, now: number): void {
    if (frame.kind !== 'dhcp') return;
    if (frame.dhcp.operation !== 'request') return this.reply(frame, now);
    const chosen = serverChosenBy(frame.dhcp);
    if (chosen !== undefined && !this.events.isOurs(chosen))
      this.chosen(frame.dhcp.clientMac, chosen, now);
  }

  /** A reply that is not ours. */
  private reply({ dhcp, ip, udp, ethernet }: DhcpFrame, now: number): void {
    if (udp.fromPort !== DHCP_PORT.server || !SAID_BY_SERVERS.includes(messageTypeOf(dhcp))) return;
    const server = findOption(dhcp.options ?? [], OPTION.serverId) ?? ip.from;
    this.answers(dhcp.clientMac, server, { mac: formatMac(ethernet.from) }, now);
  }

  /** A client says that it took the offer of this server; a switch may have hidden that offer from us. */
  private chosen(client: MacAddress, server: Ipv4, now: number): void {
    if (this.isExpected(server)) return this.leaveTo(server, client, {}, now);
    if (this.events.titleOf(client) !== undefined) this.events.leave(client, now + DOUBT_EVERY);
    if (now - this.doubtedAt < DOUBT_EVERY) return;
    this.doubtedAt = now;
    this.events.notice('server-named', { server: formatIpv4(server), by: formatMac(client) });
    if (!this.look && this.events.isArmed(now))
      this.look = { endsAt: now + LISTEN, millis: undefined, asked: 0, nextAt: now };
    this.events.changed();
  }

  private isExpected(server: Ipv4): boolean {
    return this.subnets.some(({ servers }) => servers.includes(server));
  }

  private answers(
    client: MacAddress,
    server: Ipv4,
    who: { readonly mac?: string },
    now: number,
  ): void {
    const isExpected = this.isExpected(server);
    const ours = this.events.titleOf(client);
    if (isExpected && ours === undefined) return;
    if (isExpected) return this.leaveTo(server, client, who, now);
    const wasSending = this.look !== undefined || this.events.isArmed(now);
    this.look = undefined;
    this.lookedAt = -Infinity;
    if (wasSending) {
      this.events.disarm();
      this.events.changed();
    }
    const facts = { server: formatIpv4(server), ...who, expected: 'no' };
    this.events.notice('other-server', ours === undefined ? facts : { ...facts, answered: ours });
  }

  /** An expected server has a device of ours; whom else it serves is nobody's business. */
  private leaveTo(
    server: Ipv4,
    client: MacAddress,
    who: { readonly mac?: string },
    now: number,
  ): void {
    const title = this.events.titleOf(client);
    if (title === undefined) return;
    this.events.leave(client, now + FRESH);
    this.events.notice('left-to-server', { server: formatIpv4(server), ...who, title });
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
