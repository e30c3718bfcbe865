import { formatIpv4, type Ipv4 } from '@ipsonomo/core/net';
import type { Drop } from '@ipsonomo/core/wire';
import {
  FieldRefusal,
  type FieldTarget,
  type FieldTask,
  type RecordEvidence,
} from '../../protocol';
import type { Unit } from '../unit';

/** Routers on the way of one machine network to another are two or three; more than so many is a loop. */
const MOST_HOPS = 12;
const TRIES = 2;
/** How long an answer may take. */
const WAIT = 600;
/** At most ten packets a second for any one device. */
const GAP = 120;
/** So many steps without any answer, and the rest is silent as well. */
const MOST_SILENT = 3;
const IDENTIFIER = 0x4957;
const PATIENCE = 4000;

interface PathWalk {
  readonly target: FieldTarget;
  readonly person: string;
  /** The subnet it is walked from. */
  readonly subnetId: string;
  readonly until: number;
  /** The time-to-live that is tried, 0 before the first. */
  hops: number;
  tries: number;
  sequence: number;
  nextAt: number;
  /** Who answered at each step; undefined for nobody. */
  readonly path: (Ipv4 | undefined)[];
}

export interface TraceEvents {
  isReady(subnetId: string): boolean;
  voice(subnetId: string): Ipv4 | undefined;
  needVoice(subnetId: string): void;
  ping(subnetId: string, to: Ipv4, identifier: number, sequence: number, timeToLive: number): void;
  readonly record: RecordEvidence;
  changed(): void;
}

/**
 * R-WALK: the way to a device as packets go it: ping with a time-to-live of one, two, three … from an address in a
 * subnet on the cable. Each router on the way says that it gave one up (RFC 792, RFC 1812 §5.3.1).
 */
export class Traces implements Unit {
  private readonly running = new Map<string, PathWalk>();
  private sequence = 0;

  constructor(private readonly events: TraceEvents) {}

  /** Refuses with `field.busy`. */
  start(target: FieldTarget, subnetId: string, person: string, now: number): void {
    const { interfaceId, title } = target;
    if (this.running.has(interfaceId)) throw FieldRefusal.of('field.busy', { title });
    this.running.set(interfaceId, {
      ...{ target, subnetId, person, until: now + PATIENCE, path: [] },
      ...{ hops: 0, tries: TRIES, sequence: -1, nextAt: now },
    });
    this.events.needVoice(subnetId);
    this.events.changed();
  }

  clear(): void {
    this.running.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.running].map(([interfaceId, { hops }]) => ({
      ...{ kind: 'walk', interfaceId, phase: `step ${hops}` },
    }));
  }

  nextAt(): number {
    return Math.min(Infinity, ...[...this.running.values()].map(({ nextAt }) => nextAt));
  }

  run(now: number): void {
    for (const walk of [...this.running.values()]) {
      if (now < walk.nextAt) continue;
      if (!this.events.isReady(walk.subnetId)) {
        walk.nextAt = now + GAP;
        if (now >= walk.until) this.end(walk, 'no-voice');
      } else this.next(walk, now);
    }
  }

  /** The device itself answered. */
  pong(from: Ipv4, identifier: number, sequence: number, now: number): void {
    const walk = this.waitingFor(identifier, sequence);
    if (!walk || now > walk.nextAt + WAIT) return;
    walk.path[walk.hops - 1] = from;
    this.end(walk, 'reply');
  }

  /** A router on the way gave one up. */
  dropped(from: Ipv4, drop: Drop, identifier: number, sequence: number, now: number): void {
    const walk = this.waitingFor(identifier, sequence);
    if (!walk) return;
    walk.path[walk.hops - 1] = from;
    if (drop !== 'exceeded') this.end(walk, drop);
    else {
      walk.tries = TRIES; // on to the next
      walk.nextAt = now + GAP;
    }
  }

  private waitingFor(identifier: number, sequence: number): PathWalk | undefined {
    if (identifier !== IDENTIFIER) return undefined;
    return [...this.running.values()].find((walk) => walk.sequence === sequence);
  }

  private next(walk: PathWalk, now: number): void {
    if (walk.tries >= TRIES) {
      const silent = walk.path.slice(-MOST_SILENT);
      const isSilent = silent.length === MOST_SILENT && silent.every((one) => one === undefined);
      if (isSilent || walk.hops >= MOST_HOPS) {
        this.end(walk, isSilent ? 'silent' : 'loop');
        return;
      }
      walk.hops += 1;
      walk.tries = 0;
      walk.path.push(undefined);
    }
    walk.tries += 1;
    this.sequence = (this.sequence + 1) & 0xffff;
    walk.sequence = this.sequence;
    walk.nextAt = now + WAIT;
    const { subnetId, target, hops } = walk;
    this.events.ping(subnetId, target.address, IDENTIFIER, walk.sequence, hops);
    this.events.changed();
  }

  private end(walk: PathWalk, ended: string): void {
    const { target, person, path, subnetId } = walk;
    this.running.delete(target.interfaceId);
    const from = this.events.voice(subnetId);
    const steps = path.map((one) => (one === undefined ? '-' : formatIpv4(one)));
    const facts = {
      ...{ ended, subnet: subnetId, path: steps.join(' ') },
      ...(from === undefined ? {} : { from: formatIpv4(from) }),
    };
    this.events.record('walked', target, facts, { person });
    this.events.changed();
  }
}
