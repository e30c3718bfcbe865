import {
  BROADCAST_MAC,
  toIpv4,
  UNSPECIFIED,
  ZERO_MAC,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import type { TellNotice } from '@ipsonomo/core/plan';
import { arpFrame } from '@ipsonomo/core/wire';
import type { VoiceEvents } from '../talk/patience';
import { FieldRefusal, type FieldSubnet, type FieldTask } from '../../protocol';
import type { Unit } from '../unit';

export interface SweepEvents extends VoiceEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  notice: TellNotice;
  changed(): void;
}

/** Packets a second in all, at most. */
export const MOST_PER_SECOND = 1000;
const EVERY = 20;
const ROUNDS = 2;
/** An answer may come so long after its question. */
const LISTEN = 300;
/** Later than this, and answers may not have been read yet. */
const LATE = 60;
const MOST_OVERTIME = 10;
/** A subnet of more hosts is not swept: a /22, in two seconds. */
export const MOST_HOSTS = 1022;

/** So long a sweep waits for an address to ask from; a claim takes about half of it. */
const PATIENCE = 1500;

interface Asked {
  readonly address: Ipv4;
  readonly subnetId: string;
}

/**
 * R-SWEEP: asks for every address of some subnets, shuffled, from an address of Ipsonomo's in each. A probe without a
 * sender would need none, but a device that is just starting takes it for a claim of its own address by somebody else
 * and gives it up (RFC 5227 §2.1.1); so that is done only where no address can be had. Who has not answered is asked once
 * more.
 */
export class Sweep implements Unit {
  private waiting: Asked[] = [];
  private round = ROUNDS;
  private total = 0;
  private at = Infinity;
  private startedAt = 0;
  private sent = 0;
  private perSecond = MOST_PER_SECOND;
  private overtime = 0;
  private readonly answered = new Set<Ipv4>();
  private all: readonly Asked[] = [];
  private awaited: readonly string[] = [];

  constructor(
    private readonly events: SweepEvents,
    private readonly random: () => number = Math.random,
  ) {}

  /** A subnet that is too wide is told of and left out. */
  start(subnets: readonly FieldSubnet[], now: number, perSecond = MOST_PER_SECOND): void {
    for (const one of subnets.filter(isTooWide)) this.events.notice('sweep-too-wide', factsOf(one));
    const narrow = subnets.filter((subnet) => !isTooWide(subnet));
    this.all = shuffled(narrow.flatMap(hostsOf), this.random);
    this.answered.clear();
    this.overtime = 0;
    this.perSecond = Math.min(MOST_PER_SECOND, perSecond);
    this.awaited = narrow.map(({ id }) => id);
    for (const id of this.awaited) this.events.needVoice(id);
    this.round = 1;
    this.begin(this.all, now);
    this.total = this.all.length * ROUNDS;
    this.events.changed();
  }

  clear(): void {
    this.waiting = [];
    this.awaited = [];
    this.round = ROUNDS;
    this.at = Infinity;
  }

  get isOver(): boolean {
    return this.at === Infinity;
  }

  tasks(): readonly FieldTask[] {
    if (this.isOver) return [];
    const left = this.waiting.length + (ROUNDS - this.round) * this.all.length;
    const done = this.total === 0 ? 100 : Math.round(100 * (1 - left / this.total));
    return [{ kind: 'sweep', interfaceId: undefined, phase: `${done} %` }];
  }

  nextAt(): number {
    return this.at;
  }

  sighting(address: Ipv4): void {
    if (!this.isOver) this.answered.add(address);
  }

  run(now: number): void {
    if (now < this.at || this.isAwaiting(now)) return;
    if (this.waiting.length === 0 && this.round >= ROUNDS) {
      if (this.listensOn(now)) return;
      this.at = Infinity;
      this.events.changed();
      return;
    }
    // By the clock and not by the tick: a late tick sends what is due by then, and no more than two ticks' worth.
    const due = Math.floor(((now - this.startedAt + EVERY) * this.perSecond) / 1000) - this.sent;
    const batch = this.waiting.splice(0, Math.min(due, 2 * this.perTick));
    this.sent += batch.length;
    for (const target of batch) this.events.transmit(this.question(target));
    this.at = now + EVERY;
    if (this.waiting.length === 0) this.nextRound(now);
    this.events.changed();
  }

  /** On a machine that is busy answers wait with us: whoever wakes up late has not listened for as long as it says. */
  private listensOn(now: number): boolean {
    if (now - this.at <= LATE || this.overtime >= MOST_OVERTIME) return false;
    this.overtime += 1;
    this.at = now + LISTEN;
    return true;
  }

  private get perTick(): number {
    return Math.max(1, Math.ceil((this.perSecond * EVERY) / 1000));
  }

  private nextRound(now: number): void {
    if (this.round >= ROUNDS) {
      this.at = now + LISTEN;
      return;
    }
    this.round += 1;
    const silent = this.all.filter(({ address }) => !this.answered.has(address));
    this.begin(silent, now + EVERY);
  }

  /** Its voices need their time to be claimed. */
  private isAwaiting(now: number): boolean {
    if (this.awaited.length === 0) return false;
    const isReady = this.awaited.every((id) => this.events.voice(id) !== undefined);
    if (isReady || now >= this.startedAt + PATIENCE) {
      this.awaited = [];
      this.startedAt = now;
      return false;
    }
    this.at = now + EVERY;
    return true;
  }

  private begin(asked: readonly Asked[], at: number): void {
    this.waiting = [...asked];
    this.startedAt = at;
    this.sent = 0;
    this.at = at;
  }

  private question({ address: targetAddress, subnetId }: Asked): Uint8Array {
    const { mac } = this.events;
    const senderAddress = this.events.voice(subnetId) ?? UNSPECIFIED;
    const sender = { senderMac: mac, senderAddress };
    const target = { targetMac: ZERO_MAC, targetAddress };
    return arpFrame(mac, BROADCAST_MAC, { operation: 'request', ...sender, ...target });
  }
}

const countOf = ({ length }: FieldSubnet): number =>
  length >= 31 ? 2 ** (32 - length) : 2 ** (32 - length) - 2;

const isTooWide = (subnet: FieldSubnet): boolean => countOf(subnet) > MOST_HOSTS;

/** Refuses with `sweep.tooWide` where none of them can be swept. */
export function refuseTooWide(subnets: readonly FieldSubnet[]): void {
  const [first] = subnets;
  if (first && subnets.every(isTooWide)) throw FieldRefusal.of('sweep.tooWide', factsOf(first));
}

const factsOf = (subnet: FieldSubnet) => ({
  ...{ subnet: subnet.name, addresses: countOf(subnet), most: MOST_HOSTS },
  minutes: Math.ceil(countOf(subnet) / MOST_PER_SECOND / 60),
});

/** Every address a host may have. */
function hostsOf(subnet: FieldSubnet): readonly Asked[] {
  const first = subnet.length >= 31 ? subnet.network : subnet.network + 1;
  return Array.from({ length: countOf(subnet) }, (_, at) => ({
    ...{ address: toIpv4(first + at), subnetId: subnet.id },
  }));
}

/** Fisher and Yates: no device and no switch sees its neighbours asked for in a row. */
function shuffled<T>(list: readonly T[], random: () => number): readonly T[] {
  const out = [...list];
  for (let last = out.length - 1; last > 0; last -= 1) {
    const at = Math.floor(random() * (last + 1));
    const [one, other] = [out[last], out[at]];
    if (one !== undefined && other !== undefined) [out[last], out[at]] = [other, one];
  }
  return out;
}
