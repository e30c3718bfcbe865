import { closeSync, mkdirSync, openSync, readdirSync, readFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { encodeWith, OWN_PCAP, pcapHeader, pcapRecord } from '@ipsonomo/core';
import type { FieldEvent } from './protocol';

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

  constructor(
    private readonly folder: string,
    readonly runId: string,
  ) {
    mkdirSync(folder, { recursive: true });
    this.capture = openSync(capturePath(folder, runId), 'a');
    this.events = openSync(join(folder, `${runId}.jsonl`), 'a');
    writeSync(this.capture, encodeWith(pcapHeader, OWN_PCAP));
  }

  /** @param at milliseconds since 1970, fractions allowed */
  frame(frame: Uint8Array, at: number): 'written' | 'just-full' | 'full' {
    if (this.captured >= CAPTURE_LIMIT) return 'full';
    const micros = Math.floor(at * 1000);
    const bytes = encodeWith(record, { at: micros, frame, wireLength: frame.length });
    this.captured += writeSync(this.capture, bytes);
    return this.captured >= CAPTURE_LIMIT ? 'just-full' : 'written';
  }

  event(event: Omit<FieldEvent, 'runId' | 'sequence'>): FieldEvent {
    this.sequence += 1;
    const full: FieldEvent = { runId: this.runId, sequence: this.sequence, ...event };
    writeSync(this.events, JSON.stringify(full) + '\n');
    return full;
  }

  close(): void {
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

/** Every event of a journal; a last line cut by a crash is left out. */
export const readJournal = (path: string): readonly FieldEvent[] =>
  readFileSync(path, 'utf8')
    .split('\n')
    .slice(0, -1)
    .map((line) => JSON.parse(line) as FieldEvent);
