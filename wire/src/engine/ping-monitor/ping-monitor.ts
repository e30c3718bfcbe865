import { watchedFacts } from '@ipsonomo/core/api';
import type { Ipv4 } from '@ipsonomo/core/net';
import {
  AWAITED,
  LOST,
  NOT_ASKED,
  summaryOf,
  tenthsOf,
  type VigilState,
} from '@ipsonomo/core/vigil';
import { type FieldTarget, type FieldTask, type RecordEvidence, VigilRing } from '../../protocol';
import type { Unit } from '../unit';

export interface VigilOrder {
  readonly targets: readonly FieldTarget[];
  readonly person: string;
  readonly everyMillis: number;
  readonly millis: number;
}

export interface VigilEvents {
  isReady(subnetId: string): boolean;
  needVoice(subnetId: string): void;
  ping(subnetId: string, to: Ipv4, identifier: number, sequence: number): void;
  readonly record: RecordEvidence;
  /** A vigil begins: its beats can be read there. */
  vigilBegins(ring: VigilRing): void;
  changed(): void;
}

const IDENTIFIER = 0x5649;
/** Voices are claimed before the first beat. */
const PATIENCE = 1500;
/** An answer that comes so many beats later still counts for its own. */
const REMEMBERED = 4;
/** Answers to the last beat are awaited so long. */
const LINGER = 1000;

interface Vigil extends VigilOrder {
  readonly ring: VigilRing;
  readonly startsAt: number;
  readonly beats: number;
  /** The next to be asked, counted over all beats. */
  next: number;
  readonly sentAt: Float64Array;
}

/**
 * R-VIGIL: chosen devices are asked by ping in a steady beat, spread over it, each once a beat. A beat that could not be
 * kept is not made up for: it counts as not asked, never as lost.
 */
export class PingMonitor implements Unit {
  private current: Vigil | undefined;
  private last: VigilState | undefined;

  constructor(private readonly events: VigilEvents) {}

  start(order: VigilOrder, now: number): void {
    this.clear();
    const { targets, everyMillis, millis } = order;
    const beats = Math.max(1, Math.round(millis / everyMillis));
    const startsAt = now + PATIENCE;
    const interfaceIds = targets.map(({ interfaceId }) => interfaceId);
    const ring = VigilRing.of({ interfaceIds, startedAt: startsAt, everyMillis, capacity: beats });
    const sentAt = new Float64Array(targets.length * REMEMBERED);
    this.current = { ...order, ring, startsAt, beats, next: 0, sentAt };
    for (const { subnetId } of targets) this.events.needVoice(subnetId);
    this.events.vigilBegins(ring);
    this.events.changed();
  }

  get state(): VigilState | undefined {
    return this.current ? stateOf(this.current, undefined) : this.last;
  }

  clear(): void {
    if (this.current) this.end(this.current, 'stopped');
  }

  tasks(): readonly FieldTask[] {
    return this.current ? [{ kind: 'vigil', interfaceId: undefined, phase: 'asking' }] : [];
  }

  nextAt(): number {
    const vigil = this.current;
    if (!vigil) return Infinity;
    return vigil.next >= vigil.beats * vigil.targets.length
      ? this.dueAt(vigil, vigil.next - 1) + LINGER
      : Math.max(this.dueAt(vigil, vigil.next), vigil.startsAt);
  }

  run(now: number): void {
    const vigil = this.current;
    if (!vigil || now < vigil.startsAt) return;
    const all = vigil.beats * vigil.targets.length;
    while (vigil.next < all && this.dueAt(vigil, vigil.next) <= now) {
      this.ask(vigil, vigil.next, now);
      vigil.next += 1;
    }
    if (vigil.next >= all && now >= this.dueAt(vigil, all - 1) + LINGER) this.end(vigil, 'done');
  }

  pong(from: Ipv4, identifier: number, sequence: number, now: number): void {
    const vigil = this.current;
    if (!vigil || identifier !== IDENTIFIER) return;
    const begun = vigil.ring.beats - 1;
    // The number of a beat in sixteen bits: the last one that has it.
    const beat = begun - ((begun - sequence) & 0xffff);
    if (beat < 0 || begun - beat >= REMEMBERED) return;
    vigil.targets.forEach(({ address }, device) => {
      if (address !== from || vigil.ring.at(device, beat) !== AWAITED) return;
      const sent = vigil.sentAt[device * REMEMBERED + (beat % REMEMBERED)] ?? now;
      vigil.ring.put(device, beat, tenthsOf(now - sent));
    });
  }

  /** When the question of this number is due: beat by beat, the devices spread over each. */
  private dueAt({ startsAt, everyMillis, targets }: Vigil, question: number): number {
    const beat = Math.floor(question / targets.length);
    const device = question % targets.length;
    return startsAt + beat * everyMillis + (device * everyMillis) / targets.length;
  }

  private ask(vigil: Vigil, question: number, now: number): void {
    const { ring, targets, everyMillis, sentAt } = vigil;
    const beat = Math.floor(question / targets.length);
    const device = question % targets.length;
    const target = targets[device];
    if (!target) return;
    if (device === 0) ring.begin(beat);
    // What was not answered for so many beats will not be.
    const old = beat - REMEMBERED;
    if (old >= 0 && ring.at(device, old) === AWAITED) ring.put(device, old, LOST);
    const isLate = now - this.dueAt(vigil, question) > everyMillis;
    if (isLate || !this.events.isReady(target.subnetId)) {
      ring.put(device, beat, NOT_ASKED);
      return;
    }
    sentAt[device * REMEMBERED + (beat % REMEMBERED)] = now;
    ring.put(device, beat, AWAITED);
    this.events.ping(target.subnetId, target.address, IDENTIFIER, beat & 0xffff);
  }

  private end(vigil: Vigil, how: 'done' | 'stopped'): void {
    const { ring, targets, person, everyMillis } = vigil;
    this.current = undefined;
    this.last = stateOf(vigil, how);
    targets.forEach((target, device) => {
      for (let beat = Math.max(0, ring.beats - REMEMBERED); beat < ring.beats; beat += 1)
        if (ring.at(device, beat) === AWAITED)
          ring.put(device, beat, how === 'done' ? LOST : NOT_ASKED);
      const summary = summaryOf(ring.of(device));
      if (summary.asked === 0) return;
      const facts = watchedFacts(summary, everyMillis);
      this.events.record('watched-over', target, facts, { person });
    });
    this.events.changed();
  }
}

const stateOf = (vigil: Vigil, how: VigilState['how']): VigilState => ({
  startedAt: vigil.startsAt,
  everyMillis: vigil.everyMillis,
  beats: vigil.beats,
  begun: vigil.ring.beats,
  how,
});
