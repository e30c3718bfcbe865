import { DecodeError, type Facts, type ModbusReply } from '@ipsonomo/core';
import type { TcpStream } from './carrier';
import { Broken } from './inbox';
import { openTo } from './open-to';
import type { TalkEvents } from './patience';
import { askModbus } from './proof/talk';
import { FieldRefusal, type FieldTarget, type FieldTask } from './protocol';
import type { Unit } from './unit';

export interface RegisterOrder {
  readonly target: FieldTarget;
  readonly tcpPort: number;
  /** Behind a gateway; 255 for the device itself. */
  readonly unit: number;
  readonly area: 'holding' | 'input';
  /** Counted from 0. */
  readonly register: number;
  /** As a person writes it. */
  readonly written: string;
  readonly person: string;
}

/** R-REGISTER-READ: one register read, and never written: the value, or the exception in its own number. */
export class RegisterAsking implements Unit {
  private readonly running = new Map<string, TcpStream | undefined>();

  constructor(private readonly events: TalkEvents) {}

  /** Refuses with `field.busy` and what `openTo` refuses with. */
  async ask(order: RegisterOrder): Promise<void> {
    const { target, tcpPort, unit, area, register: start, written, person } = order;
    const { interfaceId, title } = target;
    if (this.running.has(interfaceId)) throw new FieldRefusal('field.busy', { title });
    this.running.set(interfaceId, undefined);
    this.events.changed();
    try {
      const stream = await openTo(this.events, target, tcpPort);
      if (!this.running.has(interfaceId)) {
        stream.close();
        throw new FieldRefusal('field.stopped', { title });
      }
      this.running.set(interfaceId, stream);
      const asked = { kind: 'registers', area, start, count: 1 } as const;
      const facts = await factsOf(askModbus(stream, asked, unit)).finally(() => stream.close());
      this.events.record('register-read', target, { unit, area, written, ...facts }, { person });
    } finally {
      this.running.delete(interfaceId);
      this.events.changed();
    }
  }

  clear(): void {
    for (const stream of this.running.values()) stream?.close();
    this.running.clear();
  }

  tasks(): readonly FieldTask[] {
    return [...this.running.keys()].map((interfaceId) => ({
      ...{ kind: 'identify', interfaceId, phase: 'talking' },
    }));
  }
}

async function factsOf(asking: Promise<ModbusReply>): Promise<Facts> {
  try {
    const reply = await asking;
    if (reply.kind === 'exception') return { exception: reply.code };
    const value = reply.kind === 'registers' ? reply.values[0] : undefined;
    return value === undefined ? { why: 'other' } : { value };
  } catch (error) {
    if (error instanceof Broken) return { why: error.why };
    if (error instanceof DecodeError) return { why: error.code };
    throw error;
  }
}
