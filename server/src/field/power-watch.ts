import type { Ipv4, MacAddress } from '@ipsonomo/core';
import type { FieldTarget, FieldTask, RecordEvidence } from './protocol';

interface Watch {
  readonly target: FieldTarget;
  readonly mac: MacAddress;
  readonly person: string;
  readonly startedAt: number;
  phase: 'waiting-gone' | 'waiting-back';
  nextAt: number;
  unanswered: number;
  /** When it last answered. */
  seenAt: number;
}

export interface PowerEvents {
  isReady(subnetId: string): boolean;
  needVoice(subnetId: string): void;
  askArp(subnetId: string, address: Ipv4): void;
  lost(interfaceId: string): void;
  readonly record: RecordEvidence;
  changed(): void;
}

const ASK_EVERY = 400;
/** So many asks without an answer and the device is gone. */
const GONE_AFTER = 4;
const PATIENCE = 10 * 60_000;

/**
 * R-POWER: watches one device through power off and on. While it is watched Ipsonomo does not answer it, so
 * that an address it comes back with is its own.
 */
export class PowerWatch {
  private readonly watches = new Map<string, Watch>();

  constructor(private readonly events: PowerEvents) {}

  start(target: FieldTarget, mac: MacAddress, person: string, now: number): void {
    this.watches.set(target.interfaceId, {
      target,
      mac,
      person,
      startedAt: now,
      phase: 'waiting-gone',
      nextAt: now,
      unanswered: 0,
      seenAt: now,
    });
    this.events.needVoice(target.subnetId);
    this.events.changed();
  }

  clear(): void {
    this.watches.clear();
  }

  has(interfaceId: string): boolean {
    return this.watches.has(interfaceId);
  }

  tasks(): readonly FieldTask[] {
    return [...this.watches.values()].map(({ target, phase }) => ({
      kind: 'watch-power',
      interfaceId: target.interfaceId,
      phase,
    }));
  }

  nextAt(): number {
    return Math.min(Infinity, ...[...this.watches.values()].map((watch) => watch.nextAt));
  }

  run(now: number): void {
    for (const watch of this.watches.values()) {
      if (now < watch.nextAt) continue;
      watch.nextAt = now + ASK_EVERY;
      if (now - watch.startedAt > PATIENCE) {
        this.end(watch);
        continue;
      }
      if (!this.events.isReady(watch.target.subnetId)) continue;
      if (watch.phase === 'waiting-gone' && watch.unanswered >= GONE_AFTER) this.gone(watch);
      watch.unanswered += 1;
      this.events.askArp(watch.target.subnetId, watch.target.address);
    }
  }

  /** The watched MAC uses its planned address. */
  sighting(address: Ipv4, mac: MacAddress, frame: Uint8Array, now: number): void {
    for (const watch of this.watches.values()) {
      if (watch.target.address !== address || watch.mac !== mac) continue;
      const away = now - watch.seenAt;
      watch.unanswered = 0;
      watch.seenAt = now;
      if (watch.phase === 'waiting-back') this.back(watch, away, frame);
    }
  }

  /** The watched device asks for an address: what it had is gone. */
  asks(interfaceId: string, frame: Uint8Array): void {
    const watch = this.watches.get(interfaceId);
    if (!watch) return;
    this.events.record('asks-again', watch.target, {}, { frame, person: watch.person });
    this.end(watch);
  }

  /** A device that was away for less than it needs to start was only unplugged. */
  private back(watch: Watch, away: number, frame: Uint8Array): void {
    const { target, person } = watch;
    const seconds = Math.round(away / 100) / 10;
    if (seconds < target.bootSeconds) {
      const facts = { awaySeconds: seconds, needsSeconds: target.bootSeconds };
      this.events.record('back-too-soon', target, facts, { frame, person });
      watch.phase = 'waiting-gone';
      this.events.changed();
      return;
    }
    this.events.record('kept', target, { backAfterSeconds: seconds }, { frame, person });
    this.end(watch);
  }

  private gone(watch: Watch): void {
    watch.phase = 'waiting-back';
    this.events.lost(watch.target.interfaceId);
    this.events.record('gone', watch.target, {}, { person: watch.person });
    this.events.changed();
  }

  private end(watch: Watch): void {
    this.watches.delete(watch.target.interfaceId);
    this.events.changed();
  }
}
