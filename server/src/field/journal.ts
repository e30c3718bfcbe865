import {
  closeSync,
  fdatasync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { encodeWith, OWN_PCAP, pcapHeader, pcapRecord } from '@ipsonomo/core';
import type { FieldEvent } from './protocol';

/** What was heard on a plant's wire is for whoever runs the server. */
const OURS_ALONE = 0o600;

/** A capture stops growing here; evidence does not. */
const CAPTURE_LIMIT = 64 * 1024 * 1024;

const record = pcapRecord(OWN_PCAP);

/**
 * The files of one listening run: `RUN.pcap` with every frame and `RUN.jsonl` with every event. Both
 * are written before the frame they speak of leaves, so a killed server loses nothing that happened.
 */
export class Journal {
  private readonly capture: number;
  private readonly events: number;
  private captured = 0;
  private sequence = 0;
  private isClosed = false;
  private syncing: 'no' | 'yes' | 'again' = 'no';

  constructor(
    private readonly folder: string,
    readonly runId: string,
  ) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    this.capture = openSync(capturePath(folder, runId), 'a', OURS_ALONE);
    this.events = openSync(join(folder, `${runId}.jsonl`), 'a', OURS_ALONE);
    writeWhole(this.capture, encodeWith(pcapHeader, OWN_PCAP));
  }

  /** @param at milliseconds since 1970, fractions allowed */
  frame(frame: Uint8Array, at: number): 'written' | 'just-full' | 'full' {
    if (this.captured >= CAPTURE_LIMIT) return 'full';
    const micros = Math.floor(at * 1000);
    const bytes = encodeWith(record, { at: micros, frame, wireLength: frame.length });
    writeWhole(this.capture, bytes);
    this.captured += bytes.length;
    return this.captured >= CAPTURE_LIMIT ? 'just-full' : 'written';
  }

  event(event: Omit<FieldEvent, 'runId' | 'sequence'>): FieldEvent {
    this.sequence += 1;
    const full: FieldEvent = { runId: this.runId, sequence: this.sequence, ...event };
    writeWhole(this.events, Buffer.from(`${JSON.stringify(full)}\n`));
    this.sync();
    return full;
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
    this.isClosed = true;
    fsyncSync(this.events);
    closeSync(this.capture);
    closeSync(this.events);
  }
}

export const capturePath = (folder: string, runId: string): string => join(folder, `${runId}.pcap`);

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

export function readJournal(path: string): ReadJournal {
  const events: FieldEvent[] = [];
  const broken: string[] = [];
  for (const line of readFileSync(path, 'utf8').split('\n')) {
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

/** Writes all of it: a disk may take less than it was given. @throws as `writeSync` */
function writeWhole(file: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
}
