import {
  ENIP_PORT,
  formatMac,
  type EvidenceKind,
  type Ipv4,
  type MacAddress,
} from '@ipsonomo/core';
import type { TcpFailure, TcpRequest, TcpStream } from './carrier';
import { pause, voiceIn, type VoiceEvents } from './patience';
import { pinOver, type PinOutcome } from './pin';
import {
  FieldRefusal,
  type Facts,
  type FieldTarget,
  type FieldTask,
  type RecordEvidence,
} from './protocol';

export interface PinningEvents extends VoiceEvents {
  askArp(subnetId: string, address: Ipv4): void;
  open(subnetId: string, request: TcpRequest): Promise<TcpStream | TcpFailure>;
  readonly record: RecordEvidence;
  changed(): void;
}

const TCP_TIMEOUT = 3000;
/** Who else has the address would answer within this time. */
const LISTEN = 300;

interface Conversation {
  readonly target: FieldTarget;
  /** Who answered for the address before a word was said. */
  readonly macs: Set<MacAddress>;
  stream: TcpStream | undefined;
}

/** Conversations that tell a device to keep its address, one at a time with each. */
export class Pinning {
  private readonly running = new Map<string, Conversation>();

  constructor(private readonly events: PinningEvents) {}

  /** Resolves once the outcome is recorded. Refuses with `field.busy`, `field.unbound`. */
  async start(target: FieldTarget, person: string): Promise<void> {
    const { interfaceId, title, mac } = target;
    if (mac === undefined) throw new FieldRefusal('field.unbound', { title });
    if (this.running.has(interfaceId)) throw new FieldRefusal('field.busy', { title });
    const conversation: Conversation = { target, macs: new Set(), stream: undefined };
    this.running.set(interfaceId, conversation);
    this.events.changed();
    try {
      this.record(target, await this.talk(conversation, mac), person);
    } finally {
      this.running.delete(interfaceId);
      this.events.changed();
    }
  }

  /** Breaks every conversation off. */
  clear(): void {
    for (const { stream } of this.running.values()) stream?.close();
    this.running.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.running.keys()].map((interfaceId) => ({
      kind: 'pin',
      interfaceId,
      phase: 'talking',
    }));
  }

  /** Somebody says it has an address (ARP sender). */
  sighting(address: Ipv4, mac: MacAddress): void {
    for (const { target, macs } of this.running.values())
      if (target.address === address) macs.add(mac);
  }

  private async talk(
    conversation: Conversation,
    mac: MacAddress,
  ): Promise<PinOutcome | TcpFailure> {
    const { interfaceId, subnetId, address } = conversation.target;
    const from = await voiceIn(this.events, subnetId);
    if (from === undefined) return 'silent';
    this.events.askArp(subnetId, address);
    await pause(LISTEN);
    // Never a word to another device that happens to answer at the address.
    const other = [...conversation.macs].find((one) => one !== mac);
    if (other !== undefined) return { kind: 'other-device', found: formatMac(other) };
    if (conversation.macs.size === 0) return 'silent';
    const request = { from, to: address, port: ENIP_PORT, timeout: TCP_TIMEOUT };
    const stream = await this.events.open(subnetId, request);
    if (typeof stream === 'string') return stream;
    if (!this.running.has(interfaceId)) {
      stream.close();
      return 'silent';
    }
    conversation.stream = stream;
    return pinOver(stream, address);
  }

  private record(target: FieldTarget, outcome: PinOutcome | TcpFailure, person: string): void {
    const say = (kind: EvidenceKind, facts: Facts) =>
      this.events.record(kind, target, facts, { person });
    if (typeof outcome === 'string') return say('keep-refused', { why: outcome });
    const { kind, ...facts } = outcome;
    if (kind === 'kept') return say('told-to-keep', facts as Facts);
    say('keep-refused', { why: kind, ...facts });
  }
}
