import {
  closeSync,
  fdatasync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { Capture, OURS_ALONE, writeWhole, type Captured, type Speaker } from './capture';
import type { FieldEvent } from '../protocol';

/**
 * The files of one listening run: its capture, and `RUN.jsonl` with every event. What concerns us is written in both before
 * the frame they speak of leaves, so a killed server loses nothing that happened.
 */
export class Journal {
  private readonly capture: Capture;
  private readonly events: number;
  private sequence = 0;
  private lines = '';
  private isClosed = false;
  private syncing: 'no' | 'yes' | 'again' = 'no';

  /** @param failed told where frames of others could not be kept after all */
  constructor(
    private readonly folder: string,
    readonly runId: string,
    failed: (error: unknown) => void,
  ) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    this.capture = new Capture(folder, runId, failed);
    this.events = openSync(join(folder, `${runId}.jsonl`), 'a', OURS_ALONE);
  }

  /** @param at milliseconds since 1970, fractions allowed */
  frame(frame: Uint8Array, at: number, speaker: Speaker): Captured {
    return this.capture.frame(frame, at, speaker);
  }

  /** Written by the next `flush`. */
  event(event: Omit<FieldEvent, 'runId' | 'sequence'>): FieldEvent {
    this.sequence += 1;
    const full: FieldEvent = { runId: this.runId, sequence: this.sequence, ...event };
    this.lines += `${JSON.stringify(full)}\n`;
    return full;
  }

  /**
   * Writes what concerns us: frames, and evidence.
   * @returns the lines of evidence that were written now
   * @throws as `writeSync`; what could not be written is let go
   */
  flush(): string {
    const { lines } = this;
    this.lines = '';
    this.capture.flushOwn();
    if (lines === '') return lines;
    writeWhole(this.events, Buffer.from(lines));
    this.sync();
    return lines;
  }

  /** A killed server loses nothing that was written; a power cut no more than what was under way to the disk. */
  private sync(): void {
    if (this.syncing !== 'no') {
      this.syncing = 'again';
      return;
    }
    this.syncing = 'yes';
    fdatasync(this.events, () => {
      const isAgain = this.syncing === 'again';
      this.syncing = 'no';
      if (isAgain && !this.isClosed) this.sync();
    });
  }

  close(): void {
    this.flush();
    this.isClosed = true;
    fsyncSync(this.events);
    closeSync(this.events);
    this.capture.close();
  }
}

/** The journals of earlier runs that the database may not have yet. */
export const journalsIn = (folder: string): readonly string[] =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.jsonl'))
    .sort()
    .map((name) => join(folder, name));

/** What a journal has, and the lines that cannot be read: cut by a crash, or no longer what they were. */
export interface ReadJournal {
  readonly events: readonly FieldEvent[];
  readonly broken: readonly string[];
}

export const readJournal = (path: string): ReadJournal => readLines(readFileSync(path, 'utf8'));

/** The events of a journal's lines. */
export function readLines(lines: string): ReadJournal {
  const events: FieldEvent[] = [];
  const broken: string[] = [];
  for (const line of lines.split('\n')) {
    if (line === '') continue;
    const event = eventOf(line);
    if (event) events.push(event);
    else broken.push(line);
  }
  return { events, broken };
}

function eventOf(line: string): FieldEvent | undefined {
  try {
    const one = JSON.parse(line) as Partial<FieldEvent> | null;
    const isWhole =
      typeof one?.jobId === 'string' &&
      typeof one.interfaceId === 'string' &&
      typeof one.kind === 'string' &&
      typeof one.at === 'number' &&
      Number.isFinite(one.at);
    return isWhole ? (one as FieldEvent) : undefined;
  } catch {
    return undefined;
  }
}
