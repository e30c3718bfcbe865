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
  | { readonly kind: 'plan'; readonly jobId: string; readonly withPapers: boolean }
  | { readonly kind: 'job-from-plan'; readonly text: string; readonly person: Person };

/** A file, or the id of the job that was made from one. */
export type FileAnswer = OutFile | { readonly jobId: string };

const PROGRAM = { bundle: 'files.worker.js', source: 'service/files.worker.ts' };
/** Plan files may have 200 MB, and are read whole. */
const MEMORY = { maxOldGenerationSizeMb: 2048, maxYoungGenerationSizeMb: 64 };
const MOST_WAITING = 24;

/**
 * Whole plans as files, out and in: written and read in a thread with a connection to the database of its own, so that
 * nobody waits for the answer to something else while a plan of thousands is put into words.
 */
export class Files {
  private readonly thread: AskedThread<FileQuestion, FileAnswer>;

  constructor(database: Database) {
    const limits = { memory: MEMORY, most: MOST_WAITING };
    this.thread = new AskedThread(PROGRAM, limits, database);
  }

  async out(question: Exclude<FileQuestion, { kind: 'job-from-plan' }>): Promise<OutFile> {
    return (await this.thread.ask(question)) as OutFile;
  }

  /** A new job from a plan file; nothing of a file that has a fault is taken. @returns its id */
  async jobFromPlan(text: string, person: Person): Promise<string> {
    const made = await this.thread.ask({ kind: 'job-from-plan', text, person });
    return (made as { readonly jobId: string }).jobId;
  }

  close(): Promise<void> {
    return this.thread.close();
  }
}
