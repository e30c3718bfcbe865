import { formatIpv4, formatMac, type Ipv4, type MacAddress } from '@ipsonomo/core/net';
import type { FieldTarget, FieldTask, RecordEvidence } from '../../protocol';

interface Watch {
  /** Without a MAC while nothing is bound: then it is whoever comes up with the address. */
  readonly target: FieldTarget;
  readonly person: string;
  /** Who came up elsewhere meanwhile, told once each. */
  readonly strays: Set<MacAddress>;
  readonly startedAt: number;
  phase: 'waiting-gone' | 'waiting-back';
  nextAt: number;
  unanswered: number;
  /** Who answered last, and when. */
  seen: { readonly mac: MacAddress; readonly at: number } | undefined;
}

export interface PowerEvents {
  isReady(subnetId: string): boolean;
  needVoice(subnetId: string): void;
  askArp(subnetId: string, address: Ipv4): void;
  lost(interfaceId: string): void;
  /** The interface a MAC is bound to. */
  ownerOf(mac: MacAddress): string | undefined;
  /** Everybody that was seen with an address in this run: these were there before. */
  present(): Iterable<MacAddress>;
  /** Devices of the plan leave their makers with this address. */
  isFactory(address: Ipv4): boolean;
  readonly record: RecordEvidence;
  changed(): void;
}

const ASK_EVERY = 400;
/** So many asks without an answer and the device is gone. */
const GONE_AFTER = 4;
const PATIENCE = 10 * 60_000;

/**
 * R-POWER: watches one device through power off and on, or a new one as it comes up with its address for the
 * first time, from its switches say. While it is watched Ipsonomo does not answer it, so
 * that an address it comes back with is its own.
 */
export class PowerWatch {
  private readonly watches = new Map<string, Watch>();

  constructor(private readonly events: PowerEvents) {}

  start(target: FieldTarget, person: string, now: number): void {
    this.watches.set(target.interfaceId, {
      target,
      person,
      strays: new Set(this.events.present()),
      startedAt: now,
      phase: 'waiting-gone',
      nextAt: now,
      unanswered: 0,
      // A bound one may be away already: its absence counts from here.
      seen: target.mac === undefined ? undefined : { mac: target.mac, at: now },
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

  /** A MAC uses the planned address: the watched one, or where none is bound, whichever. */
  sighting(address: Ipv4, mac: MacAddress, frame: Uint8Array, now: number): void {
    for (const watch of this.watches.values()) {
      if (watch.target.address !== address) {
        this.elsewhere(watch, address, mac, frame);
        continue;
      }
      if (watch.target.mac !== undefined && watch.target.mac !== mac) continue;
      const { seen } = watch;
      watch.unanswered = 0;
      watch.seen = { mac, at: now };
      if (watch.phase === 'waiting-back')
        this.back(watch, mac, seen?.mac === mac ? now - seen.at : undefined, frame);
    }
  }

  /**
   * Something that the plan does not know, or the watched device itself, came up with another address
   * while this one was awaited: most likely the device that is meant, with its switches otherwise.
   */
  private elsewhere(watch: Watch, address: Ipv4, mac: MacAddress, frame: Uint8Array): void {
    const { target, person, phase, strays } = watch;
    const owner = this.events.ownerOf(mac);
    if (phase !== 'waiting-back' || strays.has(mac)) return;
    if (owner !== undefined && owner !== target.interfaceId) return;
    // Somebody else fresh from its box, who starts meanwhile.
    if (address !== target.factory && this.events.isFactory(address)) return;
    strays.add(mac);
    const facts = {
      found: formatIpv4(address),
      expected: formatIpv4(target.address),
      by: formatMac(mac),
    };
    this.events.record('arrived-elsewhere', { ...target, mac }, facts, { frame, person });
  }

  /** The watched device asks for an address: what it had is gone. */
  asks(interfaceId: string, frame: Uint8Array): void {
    const watch = this.watches.get(interfaceId);
    // One known by a name or a port asks at every start: the plant's own service has to answer it then.
    if (!watch || watch.target.key.by !== 'mac') return;
    this.events.record('asks-again', watch.target, {}, { frame, person: watch.person });
    this.end(watch);
  }

  /**
   * A device that was away for less than it needs to start was only unplugged.
   * @param away undefined where it was never seen before
   */
  private back(watch: Watch, mac: MacAddress, away: number | undefined, frame: Uint8Array): void {
    const { person } = watch;
    const target = { ...watch.target, mac };
    const seconds = away === undefined ? undefined : Math.round(away / 100) / 10;
    if (seconds !== undefined && seconds < target.bootSeconds) {
      const facts = { awaySeconds: seconds, needsSeconds: target.bootSeconds };
      this.events.record('back-too-soon', target, facts, { frame, person });
      watch.phase = 'waiting-gone';
      this.events.changed();
      return;
    }
    const more = { frame, person };
    if (watch.target.mac === undefined)
      for (const kind of ['seen', 'has-address'] as const)
        this.events.record(kind, target, { using: formatIpv4(target.address) }, more);
    const facts = seconds === undefined ? {} : { backAfterSeconds: seconds };
    this.events.record('kept', target, facts, more);
    this.end(watch);
  }

  /** What was never there has not gone: it is awaited. */
  private gone(watch: Watch): void {
    watch.phase = 'waiting-back';
    if (watch.seen) {
      this.events.lost(watch.target.interfaceId);
      const target = { ...watch.target, mac: watch.seen.mac };
      this.events.record('gone', target, {}, { person: watch.person });
    }
    this.events.changed();
  }

  private end(watch: Watch): void {
    this.watches.delete(watch.target.interfaceId);
    this.events.changed();
  }
}
