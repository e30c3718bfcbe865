import type { TcpStream } from '../../carriers/carrier';
import { FieldRefusal, type FieldTarget, type FieldTask } from '../../protocol';

type Whose = Pick<FieldTarget, 'interfaceId' | 'title'>;

/** One conversation with each device at a time; falling silent ends all of them. */
export class Conversations {
  private readonly running = new Map<string, TcpStream | undefined>();

  constructor(private readonly changed: () => void) {}

  /** Refuses with `field.busy`: whoever presses twice is not asked twice. */
  async during<T>({ interfaceId, title }: Whose, act: () => Promise<T>): Promise<T> {
    if (this.running.has(interfaceId)) throw FieldRefusal.of('field.busy', { title });
    this.running.set(interfaceId, undefined);
    this.changed();
    try {
      return await act();
    } finally {
      this.running.delete(interfaceId);
      this.changed();
    }
  }

  /** Talks over a stream and closes it. Refuses with `field.stopped` where somebody fell silent before it began. */
  async over<T>(
    whose: Whose,
    stream: TcpStream,
    talk: (stream: TcpStream) => Promise<T>,
  ): Promise<T> {
    try {
      this.goesOn(whose);
      this.running.set(whose.interfaceId, stream);
      return await talk(stream);
    } finally {
      stream.close();
    }
  }

  /** Refuses with `field.stopped` where somebody fell silent meanwhile. */
  goesOn({ interfaceId, title }: Whose): void {
    if (!this.running.has(interfaceId)) throw FieldRefusal.of('field.stopped', { title });
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
