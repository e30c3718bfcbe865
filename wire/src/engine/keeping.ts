import type { Clock } from '@ipsonomo/core/clock';
import { visibleText } from '@ipsonomo/core/names';
import type { Facts } from '@ipsonomo/core/plan';
import type { Speaker } from '../kept/capture';
import { Journal } from '../kept/journal';
import type { FieldEvent, RecordEvidence } from '../protocol';

export interface KeepingOf {
  readonly folder: string;
  /** The wire, as evidence names it. */
  readonly source: string;
  readonly clock: Clock;
}

export interface KeepingEvents {
  /** Evidence that is in the journal, in its order. @param lines as it stands there */
  kept(events: readonly FieldEvent[], lines: string): void;
  /** The capture of this run takes no more, or frames of others give way to younger ones; evidence goes on. */
  captureTells(what: 'full' | 'gives-way'): void;
  /** Nothing can be written any more: the run has ended. */
  diskFull(): void;
}

/** What devices say of themselves, as it can be stored: no name of theirs keeps what was seen out of the database. */
function visibleFacts(facts: Facts): Facts {
  const visible = (value: Facts[string]) =>
    typeof value === 'string' ? visibleText(value) : value;
  // Nearly always there is nothing to make visible.
  if (Object.values(facts).every((value) => visible(value) === value)) return facts;
  return Object.fromEntries(Object.entries(facts).map(([key, value]) => [key, visible(value)]));
}

const hexOf = ({ buffer, byteOffset, length }: Uint8Array): string =>
  Buffer.from(buffer, byteOffset, length).toString('hex');

/** What a run keeps. What cannot be kept is not done either: a full disk ends the run. */
export class Keeping {
  /** Who asked for what goes on now, where nobody else is named. */
  person = '';
  private journal: Journal | undefined;
  /** Evidence that is not written yet. */
  private waiting: FieldEvent[] = [];
  private isHeld = false;

  constructor(
    private readonly of: KeepingOf,
    private readonly events: KeepingEvents,
  ) {}

  get runId(): string | undefined {
    return this.journal?.runId;
  }

  begin(runId: string): void {
    this.end();
    this.journal = new Journal(this.of.folder, runId, (error) => this.notWritten(error));
  }

  end(): void {
    this.flush();
    const { journal } = this;
    this.journal = undefined;
    // What cannot be written any more is told, and then there is no run that it could end.
    journal?.close();
  }

  capture(frame: Uint8Array, now: number, speaker: Speaker): void {
    const written = this.write((journal) => journal.frame(frame, now, speaker));
    if (written === 'just-full') this.events.captureTells('full');
    if (written === 'gives-way') this.events.captureTells('gives-way');
  }

  readonly record: RecordEvidence = (kind, target, facts, { frame, person, at }) => {
    const { jobId, interfaceId, mac, lentUntil } = target;
    // Heard is heard, whatever address it is lent meanwhile.
    const isHeard = lentUntil !== undefined && kind === target.heardBy;
    const address = isHeard ? undefined : target.address;
    const seen = {
      ...{ jobId, interfaceId, kind, mac, address, facts: visibleFacts(facts) },
      at: at ?? this.of.clock.now(),
      source: this.of.source,
      person: person ?? this.person,
      bytes: frame && hexOf(frame),
    };
    const event = this.write((journal) => journal.event(seen));
    if (event) this.waiting.push(event);
    if (!this.isHeld) this.flush();
  };

  /** What is recorded from now on is written together, at the latest before something of ours leaves. */
  hold(): void {
    this.isHeld = true;
  }

  letGo(): void {
    this.isHeld = false;
    this.flush();
  }

  /** Writes what concerns us, and tells of the evidence that is written now. */
  flush(): void {
    const events = this.waiting;
    this.waiting = [];
    const lines = this.write((journal) => journal.flush());
    if (lines !== undefined && events.length > 0) this.events.kept(events, lines);
  }

  private write<T>(write: (journal: Journal) => T): T | undefined {
    if (!this.journal) return undefined;
    try {
      return write(this.journal);
    } catch (error) {
      this.notWritten(error);
      return undefined;
    }
  }

  private notWritten(error: unknown): void {
    if (!(error instanceof Error && 'syscall' in error)) throw error;
    this.events.diskFull();
  }
}
