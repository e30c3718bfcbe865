import type { FactsOf } from '@ipsonomo/core/plan';
import { DecodeError, type ModbusReply } from '@ipsonomo/core/wire';
import { Conversations } from '../talk/conversations';
import { Broken } from '../talk/inbox';
import { openTo } from '../talk/open-to';
import type { TalkEvents } from '../talk/patience';
import { askModbus } from '../proof/talk';
import type { FieldTarget, FieldTask, RegisterQuestion } from '../../protocol';
import type { Unit } from '../unit';

export interface RegisterOrder extends RegisterQuestion {
  readonly target: FieldTarget;
}

/** R-REGISTER-READ: one register read, and never written: the value, or the exception in its own number. */
export class RegisterAsking implements Unit {
  private readonly talks: Conversations;

  constructor(private readonly events: TalkEvents) {
    this.talks = new Conversations(() => events.changed());
  }

  /** Refuses with `field.busy`, `field.stopped` and what `openTo` refuses with. */
  async ask(order: RegisterOrder): Promise<void> {
    const { target, tcpPort, unit, area, register: start, written, person } = order;
    await this.talks.during(target, async () => {
      const opened = await openTo(this.events, target, tcpPort);
      const asked = { kind: 'registers', area, start, count: 1 } as const;
      const facts = await this.talks.over(target, opened, (stream) =>
        factsOf(askModbus(stream, asked, unit)),
      );
      this.events.record('register-read', target, { unit, area, written, ...facts }, { person });
    });
  }

  clear(): void {
    this.talks.clear();
  }

  tasks(): readonly FieldTask[] {
    return this.talks.tasks();
  }
}

type Outcome = Pick<FactsOf<'register-read'>, 'value' | 'exception' | 'why'>;

async function factsOf(asking: Promise<ModbusReply>): Promise<Outcome> {
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
