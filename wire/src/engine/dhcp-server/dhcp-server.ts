import {
  asksAnew,
  decide,
  forgetTwins,
  hear,
  mayBeTwins,
  namesSaid,
  portText,
  relayPortOf,
  type HeardClient,
} from '@ipsonomo/core/answering';
import {
  BROADCAST_MAC,
  formatIpv4,
  formatMac,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import {
  dhcpFrame,
  DHCP_PORT,
  kindOfMessage,
  messageTypeOf,
  receiverOf,
  type Dissected,
} from '@ipsonomo/core/wire';
import {
  doubledFacts,
  Entries,
  saysKey,
  type DhcpFrame,
  type Entry,
  type Pending,
} from './entries';
import { Probing } from './probing';
import type { FieldPlan, FieldTarget, RecordEvidence } from '../../protocol';
import type { Unit } from '../unit';

interface Heard {
  readonly client: HeardClient;
  /** Its last request, as evidence. */
  readonly frame: Uint8Array;
}

export interface DhcpServerEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  /** The address Ipsonomo speaks from in this subnet, undefined until it is claimed. */
  voice(subnetId: string): Ipv4 | undefined;
  needVoice(subnetId: string): void;
  askArp(subnetId: string, address: Ipv4): void;
  readonly record: RecordEvidence;
  heard(client: HeardClient): void;
  forgot(mac: MacAddress): void;
  isWatched(interfaceId: string): boolean;
  watchedAsks(interfaceId: string, frame: Uint8Array, now: number): void;
  /** Under its name or port another MAC asks now. */
  learned(target: FieldTarget): void;
}

/** An address counts as free this long after it was probed. */
const FRESH = 30_000;
/** The same device asking or answered again is evidence at most this often. */
const REPEAT = 30_000;
/** Another device under the same name is news, though not with every frame of a flood of them. */
const NEWS_PAUSE = 250;
const FEW = 4;
/** Strangers remembered; the quietest goes first. */
const MOST_CLIENTS = 2048;

/**
 * R-BOUND-ONLY: hears requests and answers those of bound MACs, planned names and planned ports, while armed. What
 * is none of these has no entry here, so there is nothing it could be answered with.
 */
export class DhcpServer implements Unit {
  private readonly entries: Entries;
  private readonly probing: Probing;
  private readonly known = new Map<MacAddress, Heard>();
  /** Devices that an expected server answers, and until when they are left to it. */
  private readonly left = new Map<MacAddress, number>();
  armedUntil = 0;
  requests = 0;
  strangersDropped = 0;

  constructor(private readonly events: DhcpServerEvents) {
    this.entries = new Entries((target) => events.learned(target));
    this.probing = new Probing({
      mac: events.mac,
      transmit: (frame) => events.transmit(frame),
      askArp: (subnetId, address) => events.askArp(subnetId, address),
      free: (entry, now) => this.answerPending(entry, now),
    });
  }

  /** Takes the plan anew and keeps what is known of interfaces that did not change. */
  plan({ targets }: FieldPlan, now: number): void {
    const fresh = this.entries.plan(targets);
    this.probing.plan(this.entries.values());
    for (const entry of fresh) this.heardBefore(entry, now);
  }

  get clients(): readonly HeardClient[] {
    return [...this.known.values()].map((heard) => heard.client);
  }

  /** Another server answers it, and was meant to be there: it is left to that one until then. */
  leave(client: MacAddress, until: number): void {
    this.left.set(client, until);
  }

  /** A power cut that was seen or ordered explains that it went back to how it was: it counts as one again. */
  liftTwins(mac: MacAddress | undefined): void {
    const heard = mac !== undefined && this.known.get(mac);
    if (!heard || heard.client.returns.length === 0) return;
    const client = forgetTwins(heard.client);
    this.known.set(client.mac, { ...heard, client });
    this.events.heard(client);
  }

  /** A new run begins: who was heard before does not count. */
  forget(): void {
    this.left.clear();
    this.known.clear();
    this.entries.forgetAskers();
  }

  /** What the plan calls the device that the MAC belongs to. */
  titleOf(mac: MacAddress): string | undefined {
    return this.entries.ofMac(mac)?.target.title;
  }

  ownerOf(mac: MacAddress): string | undefined {
    return this.entries.ofMac(mac)?.target.interfaceId;
  }

  get size(): number {
    return this.entries.size;
  }

  arm(until: number, now: number): void {
    this.armedUntil = until;
    for (const entry of this.entries.values()) this.events.needVoice(entry.target.subnetId);
    this.probing.begin(this.entries.values(), now);
  }

  disarm(): void {
    this.armedUntil = 0;
    for (const entry of this.entries.values()) entry.pending = undefined;
    this.probing.end();
  }

  clear(): void {
    this.disarm();
  }

  isArmed(now: number): boolean {
    return now < this.armedUntil;
  }

  nextAt(): number {
    return Math.min(this.armedUntil > 0 ? this.armedUntil : Infinity, this.probing.nextAt());
  }

  run(now: number): void {
    this.probing.run(now);
  }

  /** A voice became ready: what waited for it goes on. */
  voiceReady(subnetId: string, now: number): void {
    for (const entry of this.entries.values())
      if (entry.target.subnetId === subnetId && entry.pending && !entry.probe)
        this.answerPending(entry, now);
  }

  frame(frame: Dissected, bytes: Uint8Array, now: number): void {
    const isAsked = frame.kind === 'dhcp' && frame.dhcp.operation === 'request';
    if (isAsked && frame.udp.toPort === DHCP_PORT.server) this.request(frame, bytes, now);
  }

  private request(request: DhcpFrame, frame: Uint8Array, now: number): void {
    this.requests += 1;
    const mac = request.dhcp.clientMac;
    const client = hear(this.known.get(mac)?.client, request.dhcp, now);
    this.remember({ client, frame });
    this.events.heard(client);
    const entry = this.entries.recognise(request.dhcp, now);
    const own = this.entries.ofMac(mac);
    if (entry) this.requestOf(entry, client, { request, frame }, now);
    else if (own) this.asksOtherwise(own, request, frame, now);
  }

  /** Its MAC is known, but what it says is not what the plan goes by: told, and not answered. */
  private asksOtherwise(entry: Entry, { dhcp }: DhcpFrame, frame: Uint8Array, now: number): void {
    if (now - entry.lastAsked < REPEAT) return;
    entry.lastAsked = now;
    const [name] = namesSaid(dhcp);
    const port = relayPortOf(dhcp);
    const otherwise =
      entry.target.key.by === 'port'
        ? { otherPort: port ? portText(port) : '' }
        : { otherName: name ?? '' };
    const facts = { message: kindOfMessage(dhcp), ...otherwise };
    this.events.record('asked', entry.target, facts, { frame });
  }

  private requestOf(entry: Entry, client: HeardClient, pending: Pending, now: number): void {
    const { target } = entry;
    const { request, frame } = pending;
    const watched = this.events.isWatched(target.interfaceId);
    const anew = asksAnew(request.dhcp);
    const isFlood = entry.askers.length > FEW && now - entry.lastAsked < NEWS_PAUSE;
    const isOther = entry.toldOf !== target.mac && !isFlood && !entry.doubled;
    if (watched || isOther || now - entry.lastAsked >= REPEAT) {
      entry.lastAsked = now;
      entry.toldOf = target.mac;
      this.recordAsked(entry, kindOfMessage(request.dhcp), { frame });
    }
    const type = messageTypeOf(request.dhcp);
    if (type === 'DECLINE' || type === 'RELEASE') {
      this.givenBack(entry, type === 'DECLINE' ? 'declined' : 'released', frame);
      return;
    }
    if (anew && entry.holds) {
      entry.holds = false;
      const isUsual = target.key.by !== 'mac';
      if (!watched && !isUsual) this.events.record('asks-again', target, {}, { frame });
    }
    if (watched) {
      if (anew) this.events.watchedAsks(target.interfaceId, frame, now);
      return;
    }
    const twins = client.twins ? { differs: client.twins.join(', ') } : doubledFacts(entry);
    if (twins) {
      if (now - entry.lastAnswered >= REPEAT) {
        entry.lastAnswered = now;
        this.events.record('twins', target, twins, { frame });
      }
      return;
    }
    if ((this.left.get(client.mac) ?? 0) > now) return;
    // It has just gone back to how it was: restarted, or one of two. The next request tells.
    if (mayBeTwins(client, now)) return;
    if (this.isArmed(now)) this.consider(entry, pending, now);
  }

  /** RFC 2131 §4.3.3 and §4.3.4: neither is answered. */
  private givenBack(entry: Entry, kind: 'declined' | 'released', frame: Uint8Array): void {
    entry.holds = false;
    entry.pending = undefined;
    entry.confirms = [];
    if (kind === 'declined') entry.clearAt = -Infinity;
    this.events.record(kind, entry.target, {}, { frame });
  }

  /** Just bound: what was heard of its MAC in this run counts for it. */
  private heardBefore(entry: Entry, now: number): void {
    const { mac, key, heardBy } = entry.target;
    const heard =
      key.by === 'mac'
        ? mac !== undefined && heardBy === 'asked' && this.known.get(mac)
        : [...this.known.values()].find(({ client }) => saysKey(client, key));
    if (!heard) return;
    const { client, frame } = heard;
    const at = Math.min(now, client.lastAt);
    if (key.by !== 'mac') this.entries.asksUnder(entry, client.mac, at);
    const message = client.message === 'BootP' ? 'BootP request' : client.message;
    this.recordAsked(entry, message, { frame, at });
  }

  private recordAsked(
    { target }: Entry,
    message: string,
    more: { readonly frame: Uint8Array; readonly at?: number },
  ): void {
    const { key } = target;
    if (key.by === 'name')
      this.events.record('asked-by-name', target, { message, name: key.name }, more);
    else if (key.by === 'port' && key.port)
      this.events.record('asked-by-port', target, { message, port: portText(key.port) }, more);
    else this.events.record('asked', target, { message }, more);
  }

  /** Somebody says it has an address (ARP sender). */
  sighting(address: Ipv4, mac: MacAddress, frame: Uint8Array, now: number): void {
    const speaker = this.entries.ofMac(mac);
    if (speaker && !speaker.seen && speaker.target.heardBy === 'seen') {
      speaker.seen = true;
      this.events.record('seen', speaker.target, { using: formatIpv4(address) }, { frame });
    }
    const entry = this.entries.ofAddress(address);
    if (!entry || mac === this.events.mac) return;
    if (mac === entry.target.mac) {
      entry.clearAt = now;
      entry.taken = undefined;
      entry.confirms = [];
      if (!entry.holds) {
        entry.holds = true;
        const { lentUntil } = entry.target;
        const facts = lentUntil === undefined ? {} : { lent: formatIpv4(address) };
        this.events.record('has-address', entry.target, facts, { frame });
      }
      return;
    }
    const news = entry.taken?.mac !== mac;
    entry.taken = { mac, at: now };
    this.probing.claimed(entry, receiverOf(frame) === this.events.mac, now);
    if (news) this.events.record('address-taken', entry.target, { by: formatMac(mac) }, { frame });
  }

  /** The device stopped answering: the next sighting is news again. */
  lost(interfaceId: string): void {
    const entry = this.entries.of(interfaceId);
    if (entry) entry.holds = false;
  }

  private remember(heard: Heard): void {
    const { mac } = heard.client;
    this.known.delete(mac);
    this.known.set(mac, heard);
    if (this.known.size <= MOST_CLIENTS) return;
    for (const oldest of this.known.keys()) {
      if (this.entries.ofMac(oldest)) continue;
      this.known.delete(oldest);
      this.strangersDropped += 1;
      this.events.forgot(oldest);
      return;
    }
  }

  private consider(entry: Entry, pending: Pending, now: number): void {
    entry.pending = pending;
    const age = now - entry.clearAt;
    const isFresh = age < FRESH && !entry.taken;
    if (isFresh) this.answerPending(entry, now);
    // Who asks again and again never waits for a question: it is asked before what is known turns old.
    if (!isFresh || age > FRESH / 2) this.probing.ask(entry, now);
  }

  private answerPending(entry: Entry, now: number): void {
    const { pending, target } = entry;
    if (!pending || !this.isArmed(now)) return;
    const server = this.events.voice(target.subnetId);
    if (server === undefined) {
      this.events.needVoice(target.subnetId);
      return;
    }
    entry.pending = undefined;
    this.answer(entry, pending.request, server, now);
  }

  private answer(entry: Entry, request: DhcpFrame, server: Ipv4, now: number): void {
    const { target } = entry;
    const mac = request.dhcp.clientMac;
    const { address, length, gateway, hostName } = target;
    const leaseSeconds = leaseFor(target, now);
    const given = { mac, give: address, length, gateway, hostName, leaseSeconds };
    const verdict = decide(given, request.dhcp, server);
    if (verdict.kind === 'silent') return;
    const gives = verdict.reply === 'ACK' || verdict.reply === 'BootP reply';
    const ends = {
      from: server,
      fromPort: DHCP_PORT.server,
      to: verdict.to.address,
      toPort: verdict.to.port,
    };
    const to = verdict.to.hardware === 'sender' ? request.ethernet.from : BROADCAST_MAC;
    const reply = dhcpFrame(this.events.mac, ends, verdict.message, to);
    if (gives && now - entry.lastAnswered >= 1000) {
      entry.lastAnswered = now;
      const gave = formatIpv4(address);
      const lent = target.lentUntil === undefined ? {} : { lentUntil: target.lentUntil };
      const facts = { reply: verdict.reply, gave, ...lent };
      this.events.record('answered', target, facts, { frame: reply });
    }
    this.events.transmit(reply);
    if (gives && !entry.holds) this.probing.confirm(entry, now);
  }
}

/** A day: longer than a shift, shorter than anybody forgets who gave it. */
const LEASE_SECONDS = 86_400;
/** Shorter ones some clients refuse (common practice, no source). */
const SHORTEST_LEASE = 60;

/** A loan is not leased for longer than it lasts. */
const leaseFor = ({ lentUntil }: FieldTarget, now: number): number =>
  lentUntil === undefined
    ? LEASE_SECONDS
    : Math.min(LEASE_SECONDS, Math.max(SHORTEST_LEASE, Math.ceil((lentUntil - now) / 1000)));
