import { formatMac, type MacAddress } from '@ipsonomo/core/net';
import { ENIP_PORT } from '@ipsonomo/core/wire';
import type { TcpFailure, TcpStream } from '../../carriers/carrier';
import type { TalkEvents } from '../talk/patience';
import { pinOver, type PinOutcome } from './pin';
import { FieldRefusal, type FieldTarget, type FieldTask } from '../../protocol';

const TCP_TIMEOUT = 3000;

interface Conversation {
  readonly target: FieldTarget;
  stream: TcpStream | undefined;
}

/** Conversations that tell a device to keep its address, one at a time with each. */
export class Pinning {
  private readonly running = new Map<string, Conversation>();

  constructor(private readonly events: TalkEvents) {}

  /** Resolves once the outcome is recorded. Refuses with `field.busy`, `field.unbound`. */
  async start(target: FieldTarget, person: string): Promise<void> {
    const { interfaceId, title, mac } = target;
    if (mac === undefined) throw FieldRefusal.of('field.unbound', { title });
    if (this.running.has(interfaceId)) throw FieldRefusal.of('field.busy', { title });
    const conversation: Conversation = { target, stream: undefined };
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

  private async talk(
    conversation: Conversation,
    mac: MacAddress,
  ): Promise<PinOutcome | TcpFailure> {
    const { interfaceId, subnetId, address } = conversation.target;
    const macs = await this.events.whoIsAt(subnetId, address);
    const from = this.events.voice(subnetId);
    if (macs === 'no-voice' || from === undefined) return 'silent';
    // Never a word to another device that happens to answer at the address.
    const other = [...macs].find((one) => one !== mac);
    if (other !== undefined) return { kind: 'other-device', found: formatMac(other) };
    if (macs.size === 0) return 'silent';
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
    const more = { person };
    if (typeof outcome === 'string')
      return this.events.record('keep-refused', target, { why: outcome }, more);
    if (outcome.kind === 'kept') {
      const { kind: _kept, ...facts } = outcome;
      return this.events.record('told-to-keep', target, facts, more);
    }
    const { kind, ...facts } = outcome;
    this.events.record('keep-refused', target, { why: kind, ...facts }, more);
  }
}
