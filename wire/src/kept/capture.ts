import { closeSync, fsyncSync, openSync, rmSync, statSync, writeSync } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import { encodeWith, OWN_PCAP, pcapHeader, pcapRecord, type PcapRecord } from '@ipsonomo/core/wire';

/** What was heard on a plant's wire is for whoever runs the server. */
export const OURS_ALONE = 0o600;

const MEGABYTE = 1024 * 1024;

/** How much a run may keep, in bytes. */
export interface CaptureLimits {
  /** Of what was said to us, by us and by devices of the plan: whole, until here. */
  readonly own: number;
  /** Of all else in each of two parts, the older of which gives way. */
  readonly others: number;
}

const LIMITS: CaptureLimits = { own: 1024 * MEGABYTE, others: 32 * MEGABYTE };

/** What became of a frame; what is to be told is told once: that others' older frames give way, that nothing is kept any more. */
export type Captured = 'written' | 'gives-way' | 'just-full' | 'full';

const record = pcapRecord(OWN_PCAP);
const HEAD = encodeWith(pcapHeader, OWN_PCAP);
const RECORD_HEAD = 16;
/** No frame is longer: what says so is no record. */
const LONGEST = 262_144;

/** What a run kept goes with its job. */
export function removeCapture(folder: string, runId: string): void {
  const { own, others } = partsOf(folder, runId);
  for (const path of [own, ...others]) rmSync(path, { force: true });
}

/** The parts of a run's capture; each is a whole file of its own, and together they are what was captured. */
const partsOf = (folder: string, runId: string) => ({
  own: join(folder, `${runId}.pcap`),
  others: ['a', 'b'].map((letter) => join(folder, `${runId}.others-${letter}.pcap`)),
});

/** Whose words a frame has: what others say among themselves, or what we say and what concerns us. */
export type Speaker = 'others' | 'ours';

/**
 * What a listening run keeps of the wire, as a ring: what was said to us and by us is kept whole, what others say among
 * themselves as far as there is room. Frames that are heard in one go are written in one go, since a full plant says some
 * thousands in a second; whoever sends something of ours writes it and all that concerns us before (`flushOwn`).
 */
export class Capture {
  private readonly own: number;
  private others: number;
  private current = 0;
  private ownBytes = 0;
  private otherBytes = 0;
  private turns = 0;
  private readonly waiting = { own: [] as Uint8Array[], others: [] as Uint8Array[] };
  private isClosed = false;
  private readonly parts;

  /** @param failed told where what was heard could not be written after all */
  constructor(
    folder: string,
    runId: string,
    private readonly failed: (error: unknown) => void,
    private readonly limits: CaptureLimits = LIMITS,
  ) {
    this.parts = partsOf(folder, runId);
    this.own = begun(this.parts.own);
    this.others = begun(this.otherPart);
  }

  /**
   * @param at milliseconds since 1970, fractions allowed
   * @throws as `writeSync`
   */
  frame(frame: Uint8Array, at: number, speaker: Speaker): Captured {
    const one = { at: Math.floor(at * 1000), frame, wireLength: frame.length };
    const bytes = encodeWith(record, one);
    return speaker === 'others' ? this.keepOther(bytes) : this.keepOwn(bytes);
  }

  close(): void {
    this.flushOrTell();
    this.isClosed = true;
    fsyncSync(this.own);
    closeSync(this.own);
    closeSync(this.others);
  }

  private keepOwn(bytes: Uint8Array): Captured {
    if (this.ownBytes >= this.limits.own) return 'full';
    this.flushSoon();
    this.waiting.own.push(bytes);
    this.ownBytes += bytes.length;
    return this.ownBytes >= this.limits.own ? 'just-full' : 'written';
  }

  private keepOther(bytes: Uint8Array): Captured {
    const isTurn = this.otherBytes >= this.limits.others;
    if (isTurn) this.turn();
    this.flushSoon();
    this.waiting.others.push(bytes);
    this.otherBytes += bytes.length;
    // The first turn only begins the second part.
    return isTurn && this.turns === 2 ? 'gives-way' : 'written';
  }

  /** A reader of the part that gives way keeps it: it is removed and not emptied. */
  private turn(): void {
    this.turns += 1;
    this.flush();
    closeSync(this.others);
    this.current = 1 - this.current;
    rmSync(this.otherPart, { force: true });
    this.others = begun(this.otherPart);
    this.otherBytes = 0;
  }

  private get otherPart(): string {
    return this.parts.others[this.current] as string;
  }

  private flushSoon(): void {
    if (this.waiting.own.length + this.waiting.others.length > 0) return;
    queueMicrotask(() => {
      if (!this.isClosed) this.flushOrTell();
    });
  }

  private flushOrTell(): void {
    try {
      this.flush();
    } catch (error) {
      this.failed(error);
    }
  }

  private flush(): void {
    this.flushOwn();
    writeAll(this.others, this.waiting.others.splice(0));
  }

  /** @throws as `writeSync` */
  flushOwn(): void {
    writeAll(this.own, this.waiting.own.splice(0));
  }
}

function writeAll(file: number, [first, ...more]: readonly Uint8Array[]): void {
  if (first) writeWhole(file, more.length === 0 ? first : Buffer.concat([first, ...more]));
}

function begun(path: string): number {
  const file = openSync(path, 'a', OURS_ALONE);
  writeWhole(file, HEAD);
  return file;
}

/** Writes all of it: a disk may take less than it was given. @throws as `writeSync` */
export function writeWhole(file: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
}

/** Whether a run has a capture. */
export const hasCapture = (folder: string, runId: string): boolean =>
  statSync(partsOf(folder, runId).own, { throwIfNoEntry: false }) !== undefined;

const CHUNK = 256 * 1024;

/** The records of one part in their order, as long as they are whole: the last may be under way. */
async function* recordsOf(file: FileHandle): AsyncGenerator<PcapRecord & { bytes: Uint8Array }> {
  let rest: Buffer = Buffer.alloc(0);
  for (let position = HEAD.length; ;) {
    const chunk = Buffer.alloc(CHUNK);
    const { bytesRead } = await file.read(chunk, 0, CHUNK, position);
    if (bytesRead === 0) return;
    position += bytesRead;
    const bytes = Buffer.concat([rest, chunk.subarray(0, bytesRead)]);
    let at = 0;
    while (at + RECORD_HEAD <= bytes.length) {
      const length = bytes.readUInt32LE(at + 8);
      if (length > LONGEST) return;
      const end = at + RECORD_HEAD + length;
      if (end > bytes.length) break;
      const { value } = record.decode(bytes, at, end);
      yield { ...value, bytes: bytes.subarray(at, end) };
      at = end;
    }
    rest = bytes.subarray(at);
  }
}

/**
 * A run's capture as one file in the classic format, its parts put together by time; also while the run goes on.
 * Of frames of one moment those of others come first: a question stands before its answer.
 */
export async function* readCapture(folder: string, runId: string): AsyncGenerator<Uint8Array> {
  const { own, others } = partsOf(folder, runId);
  const files: FileHandle[] = [];
  try {
    for (const path of [...others, own]) {
      const file = await open(path).catch(() => undefined);
      if (file) files.push(file);
    }
    yield HEAD;
    yield* inOrder(files.map(recordsOf));
  } finally {
    for (const file of files) await file.close();
  }
}

/** Merges what is sorted by time, in pieces that are worth sending. */
async function* inOrder(
  parts: readonly AsyncGenerator<PcapRecord & { bytes: Uint8Array }>[],
): AsyncGenerator<Uint8Array> {
  const heads = await Promise.all(parts.map((part) => part.next()));
  let piece: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    let first = -1;
    heads.forEach(({ done, value }, index) => {
      if (done === true) return;
      const best = heads[first]?.value as PcapRecord | undefined;
      if (best === undefined || (value as PcapRecord).at < best.at) first = index;
    });
    const head = heads[first];
    const part = parts[first];
    if (head === undefined || head.done === true || part === undefined) break;
    piece.push(head.value.bytes);
    size += head.value.bytes.length;
    heads[first] = await part.next();
    if (size < CHUNK) continue;
    yield Buffer.concat(piece);
    piece = [];
    size = 0;
  }
  if (piece.length > 0) yield Buffer.concat(piece);
}
