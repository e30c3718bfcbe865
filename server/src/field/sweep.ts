import {
  arpFrame,
  BROADCAST_MAC,
  toIpv4,
  UNSPECIFIED,
  ZERO_MAC,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { FieldSubnet, FieldTask } from './protocol';
import type { Unit } from './unit';

export interface SweepEvents {
  readonly mac: MacAddress;
  transmit(frame: Uint8Array): void;
  changed(): void;
}

/** 500 questions a second: a /24 twice in about a second, and no flood on a slow device. */
const EACH = 10;
const EVERY = 20;
const ROUNDS = 2;
/** Wider subnets are asked so far and no farther. */
export const MOST_HOSTS = 1024;

/**
 * R-SWEEP: asks for every address of some subnets, as a probe with no sender's address (RFC 5227 §2.1.1): no
 * address of Ipsonomo's is needed for it and no table of a neighbour is changed by it.
 */
export class Sweep implements Unit {
  private waiting: Ipv4[] = [];
  private total = 0;
  private at = Infinity;

  constructor(private readonly events: SweepEvents) {}

  start(subnets: readonly FieldSubnet[], now: number): void {
    const once = subnets.flatMap(hostsOf);
    this.waiting = Array.from({ length: ROUNDS }, () => once).flat();
    this.total = this.waiting.length;
    this.at = now;
    this.events.changed();
  }

  clear(): void {
    this.waiting = [];
    this.at = Infinity;
  }

  tasks(): readonly FieldTask[] {
    if (this.waiting.length === 0) return [];
    const done = Math.round((100 * (this.total - this.waiting.length)) / this.total);
    return [{ kind: 'sweep', interfaceId: undefined, phase: `${done} %` }];
  }

  nextAt(): number {
    return this.at;
  }

  run(now: number): void {
    if (now < this.at) return;
    for (const target of this.waiting.slice(0, EACH)) this.events.transmit(this.probe(target));
    this.waiting = this.waiting.slice(EACH);
    this.at = this.waiting.length > 0 ? now + EVERY : Infinity;
    this.events.changed();
  }

  private probe(targetAddress: Ipv4): Uint8Array {
    const { mac } = this.events;
    const sender = { senderMac: mac, senderAddress: UNSPECIFIED };
    const target = { targetMac: ZERO_MAC, targetAddress };
    return arpFrame(mac, BROADCAST_MAC, { operation: 'request', ...sender, ...target });
  }
}

/** Every address a host may have, in their order. */
function hostsOf({ network, length }: FieldSubnet): readonly Ipv4[] {
  const size = 2 ** (32 - length);
  if (size <= 2) return Array.from({ length: size }, (_, at) => toIpv4(network + at));
  return Array.from({ length: Math.min(size - 2, MOST_HOSTS) }, (_, at) =>
    toIpv4(network + 1 + at),
  );
}
