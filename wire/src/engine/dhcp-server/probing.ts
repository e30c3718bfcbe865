import {
  BROADCAST_MAC,
  UNSPECIFIED,
  ZERO_MAC,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core/net';
import { arpFrame } from '@ipsonomo/core/wire';
import type { Entry } from './entries';

export interface ProbingEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  askArp(subnetId: string, address: Ipv4): void;
  /** Nobody else answered for its address. */
  free(entry: Entry, now: number): void;
}

/** Probes of many devices follow one another at this pace: small devices drop frames in a burst. */
const PROBE_GAP = 2;
const PROBES = 2;
const PROBE_INTERVAL = 75;
/**
 * An address that somebody said to have is asked for at once, though no oftener than this, and who asked for it waits so long:
 * who really has it answers, and a word that anybody can say takes nothing from anybody.
 */
const TAKEN_AGAIN = 250;
/** So often an address is asked for that is only said to be somebody's. */
const MOST_ROUNDS = 3;
const CONFIRM_AFTER = [150, 1000, 3000] as const;

/**
 * R-PROBE (RFC 5227 §2.1.1): asks who has an address before it is given, and afterwards whether the device took it. Of all
 * entries it looks only at those that it has something to ask for: a plan may have thousands.
 */
export class Probing {
  private readonly due = new Set<Entry>();

  constructor(private readonly events: ProbingEvents) {}

  /** The entries are others than before. */
  plan(entries: Iterable<Entry>): void {
    this.due.clear();
    for (const entry of entries) if (isDue(entry)) this.due.add(entry);
  }

  /** Every address is asked for, one after the other. */
  begin(entries: Iterable<Entry>, now: number): void {
    let start = now;
    for (const entry of entries) {
      entry.probe ??= { sent: 0, nextAt: (start += PROBE_GAP), rounds: 0 };
      this.due.add(entry);
    }
  }

  end(): void {
    for (const entry of this.due) {
      entry.probe = undefined;
      entry.confirms = [];
    }
    this.due.clear();
  }

  nextAt(): number {
    let next = Infinity;
    for (const entry of this.due)
      next = Math.min(next, entry.probe?.nextAt ?? Infinity, entry.confirms[0] ?? Infinity);
    return next;
  }

  run(now: number): void {
    for (const entry of this.due) {
      if (entry.probe && now >= entry.probe.nextAt) this.probe(entry, entry.probe, now);
      const confirm = entry.confirms[0];
      if (confirm !== undefined && now >= confirm) {
        entry.confirms.shift();
        this.events.askArp(entry.target.subnetId, entry.target.address);
      }
      if (!isDue(entry)) this.due.delete(entry);
    }
  }

  /** Asks for its address, unless that is done already, or is to be. */
  ask(entry: Entry, now: number): void {
    if (entry.probe && entry.probe.sent + entry.probe.rounds > 0) return;
    const nextAt = mayAskAt(entry, now);
    entry.probe = { sent: 0, nextAt, rounds: 0 };
    this.due.add(entry);
    if (nextAt <= now) this.probe(entry, entry.probe, now);
  }

  /** Asks some times whether the device uses what it was given. */
  confirm(entry: Entry, now: number): void {
    entry.confirms = CONFIRM_AFTER.map((after) => now + after);
    this.due.add(entry);
  }

  /**
   * Somebody else said to have the address that is asked for. An answer to our question settles it; a word to everybody,
   * which anybody can say, has it asked for again, some times.
   */
  claimed(entry: Entry, isAnswer: boolean, now: number): void {
    const { probe, pending } = entry;
    const rounds = (probe?.rounds ?? 0) + (probe && probe.sent > 0 ? 1 : 0);
    if (pending && !isAnswer && rounds < MOST_ROUNDS) {
      entry.probe = { sent: 0, nextAt: mayAskAt(entry, now), rounds };
      this.due.add(entry);
      return;
    }
    entry.probe = undefined;
    entry.pending = undefined;
  }

  private probe(entry: Entry, probe: NonNullable<Entry['probe']>, now: number): void {
    if (probe.sent === 0) {
      entry.taken = undefined;
      entry.askedAt = now;
    }
    if (probe.sent < PROBES) {
      probe.sent += 1;
      probe.nextAt = now + PROBE_INTERVAL;
      this.events.transmit(probeFrame(this.events.mac, entry.target.address));
      return;
    }
    entry.probe = undefined;
    entry.clearAt = now;
    this.events.free(entry, now);
  }
}

const isDue = ({ probe, confirms }: Entry): boolean => probe !== undefined || confirms.length > 0;

const mayAskAt = ({ taken, askedAt }: Entry, now: number): number =>
  taken ? Math.max(now, askedAt + TAKEN_AGAIN) : now;

export const probeFrame = (mac: MacAddress, address: Ipv4): Uint8Array =>
  arpFrame(mac, BROADCAST_MAC, {
    operation: 'request',
    senderMac: mac,
    senderAddress: UNSPECIFIED,
    targetMac: ZERO_MAC,
    targetAddress: address,
  });
