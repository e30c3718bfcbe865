import type { JobCounts } from '@ipsonomo/core';
import { AskedThread } from '../common/asked-thread';
import type { Database } from '../store/database';
import type { Person } from './change-plan';

/** A file that leaves the house. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export type FileQuestion =
  | { readonly kind: 'addresses' | 'dhcp'; readonly jobId: string }
  | { readonly kind: 'plan'; readonly jobId: string; readonly withPapers: boolean };

export type PlanQuestion =
  | FileQuestion
  | { readonly kind: 'job-from-plan'; readonly bytes: Uint8Array; readonly person: Person }
  | { readonly kind: 'counts'; readonly jobId: string };

export type PlanAnswer =
  { readonly file: OutFile } | { readonly jobId: string } | { readonly counts: JobCounts };

const PROGRAM = { bundle: 'plan-work.worker.js', source: 'service/plan-work.worker.ts' };
/** Plan files may have 200 MB, and are read whole. */
const MEMORY = { maxOldGenerationSizeMb: 2048, maxYoungGenerationSizeMb: 64 };
const MOST_WAITING = 24;

/**
 * What needs whole plans and nobody's other question should wait for: files out and in, and what is left in jobs that were
 * not looked at for long. It is done in a thread with a connection to the database of its own.
 */
export class PlanWork {
  private readonly thread: AskedThread<PlanQuestion, PlanAnswer>;

  constructor(database: Database) {
    const limits = { memory: MEMORY, most: MOST_WAITING };
    this.thread = new AskedThread(PROGRAM, limits, database);
  }

  async file(question: FileQuestion): Promise<OutFile> {
    return ((await this.thread.ask(question)) as { readonly file: OutFile }).file;
  }

  /**
   * A new job from a plan file; nothing of a file that has a fault is taken.
   * @param bytes of the file: a large one is handed over, and gone here
   * @returns its id
   */
  async jobFromPlan(bytes: Uint8Array, person: Person): Promise<string> {
    // A small one may be a part of what others use as well.
    const isAlone = bytes.byteLength === bytes.buffer.byteLength;
    const transfer = isAlone ? [bytes.buffer as ArrayBuffer] : [];
    const made = await this.thread.ask({ kind: 'job-from-plan', bytes, person }, transfer);
    return (made as { readonly jobId: string }).jobId;
  }

  /** What a job has, and what is left to do in it. */
  async counts(jobId: string): Promise<JobCounts> {
    const made = await this.thread.ask({ kind: 'counts', jobId });
    return (made as { readonly counts: JobCounts }).counts;
  }

  close(): Promise<void> {
    return this.thread.close();
  }
}
