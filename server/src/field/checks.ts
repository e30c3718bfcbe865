import {
  formatIpv4,
  formatMac,
  type EvidenceKind,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { Facts, FieldTarget, FieldTask, RecordEvidence } from './protocol';

interface Check {
  readonly target: FieldTarget;
  readonly person: string;
  readonly sequence: number;
  asks: number;
  pings: number;
  nextAt: number;
  endsAt: number;
  readonly macs: Set<MacAddress>;
  pingedAt: number;
  pong: number | undefined;
}

export interface CheckEvents {
  readonly mac: MacAddress;
  isReady(subnetId: string): boolean;
  needVoice(subnetId: string): void;
  askArp(subnetId: string, address: Ipv4): void;
  ping(subnetId: string, to: Ipv4, identifier: number, sequence: number): void;
  readonly record: RecordEvidence;
  changed(): void;
}

const IDENTIFIER = 0x4950;
const ASKS = 3;
const PINGS = 3;
/** Between two packets to one device: at most ten a second. */
const PAUSE = 150;
const START_GAP = 10;
/** Voices need their time to be claimed first. */
const PATIENCE = 4000;
const LISTEN = 900;

/**
 * Proves devices: ARP and ping from an address in their own subnet. Every check goes on listening
 * after the first answer, since a second MAC with the same address answers too.
 */
export class Checks {
  private readonly running = new Map<string, Check>();
  private sequence = 0;

  constructor(private readonly events: CheckEvents) {}

  start(targets: readonly FieldTarget[], person: string, now: number): void {
    targets.forEach((target, index) => {
      this.sequence = (this.sequence + PINGS) & 0xffff;
      const nextAt = now + index * START_GAP;
      this.running.set(target.interfaceId, {
        target,
        person,
        sequence: this.sequence,
        asks: 0,
        pings: 0,
        nextAt,
        endsAt: nextAt + PATIENCE,
        macs: new Set(),
        pingedAt: 0,
        pong: undefined,
      });
      this.events.needVoice(target.subnetId);
    });
    this.events.changed();
  }

  clear(): void {
    this.running.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.running.keys()].map((interfaceId) => ({
      kind: 'check',
      interfaceId,
      phase: 'asking',
    }));
  }

  nextAt(): number {
    return Math.min(Infinity, ...[...this.running.values()].map((check) => check.nextAt));
  }

  sighting(address: Ipv4, mac: MacAddress): void {
    if (mac === this.events.mac) return;
    for (const check of this.running.values())
      if (check.target.address === address) check.macs.add(mac);
  }

  pong(from: Ipv4, identifier: number, sequence: number, now: number): void {
    if (identifier !== IDENTIFIER) return;
    for (const check of this.running.values()) {
      const mine = sequence >= check.sequence && sequence < check.sequence + PINGS;
      if (check.target.address === from && mine && check.pong === undefined)
        check.pong = now - check.pingedAt;
    }
  }

  run(now: number): void {
    for (const [id, check] of this.running) {
      if (now < check.nextAt) continue;
      if (this.next(check, now)) continue;
      this.running.delete(id);
      this.conclude(check);
      this.events.changed();
    }
  }

  /** Sends what is next; false once everything was asked and waited for. */
  private next(check: Check, now: number): boolean {
    const { subnetId, address } = check.target;
    check.nextAt = now + PAUSE;
    if (!this.events.isReady(subnetId)) return now < check.endsAt;
    if (check.asks < ASKS) {
      if (check.asks === 0) check.endsAt = now + LISTEN + ASKS * PAUSE + PINGS * PAUSE;
      check.asks += 1;
      this.events.askArp(subnetId, address);
      return true;
    }
    if (check.macs.size > 0 && check.pong === undefined && check.pings < PINGS) {
      check.pingedAt = now;
      this.events.ping(subnetId, address, IDENTIFIER, check.sequence + check.pings);
      check.pings += 1;
      return true;
    }
    const waiting = check.macs.size === 0 ? false : check.pong === undefined;
    return waiting && check.target.answersPing && now < check.endsAt;
  }

  private conclude({ target, person, macs, pong, asks }: Check): void {
    const { mac, address, answersPing } = target;
    const found = [...macs].map(formatMac).join(', ');
    const facts = {
      asked: formatIpv4(address),
      ...(found ? { found } : {}),
      ...(pong === undefined ? {} : { pingMillis: Math.round(pong * 10) / 10 }),
    };
    const record = (kind: EvidenceKind, more: Facts = {}) =>
      this.events.record(kind, target, { ...facts, ...more }, { person });
    if (asks === 0) record('no-answer', { why: 'no-voice' });
    else if (macs.size === 0) record('no-answer');
    else if (mac === undefined) record('contradicted', { what: 'unbound' });
    else if (macs.size > 1) record('contradicted', { what: 'several', expected: formatMac(mac) });
    else if (!macs.has(mac)) record('contradicted', { what: 'mac', expected: formatMac(mac) });
    else if (answersPing && pong === undefined) record('contradicted', { what: 'no-ping' });
    else record('found-as-planned');
  }
}
