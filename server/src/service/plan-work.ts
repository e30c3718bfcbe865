import type {
  JobCounts,
  KindsTaken,
  ListLines,
  ListPreview,
  NewRehearsal,
  RoundTimes,
} from '@ipsonomo/core/api';
import type { Edit } from '@ipsonomo/core/plan';
import type { EstimateWish } from '@ipsonomo/core/round';
import { AskedThread } from '../common/asked-thread';
import type { Database } from '../store/database';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { ListQuestion, Taking } from './list-answers';
import {
  PlanAnswers,
  type FileQuestion,
  type OutFile,
  type PlanAnswer,
  type PlanQuestion,
} from './plan-answers';
import type { PlanReader } from './read-plan';

const PROGRAM = { bundle: 'plan-work.worker.js', source: 'server/src/service/plan-work.worker.ts' };
/** Plan files may have 200 MB, and are read whole. */
const MEMORY = { maxOldGenerationSizeMb: 2048, maxYoungGenerationSizeMb: 64 };
const MOST_WAITING = 24;
/** Things of a plan that is put into words quicker than a thread is asked; about 500 devices. */
const FEW_THINGS = 1500;
/** Bytes of the file of such a plan. */
const FEW_BYTES = 500_000;
/** The cells of a list lie there packed, to a tenth or less. */
const LIST_PACKED = 10;

/**
 * What needs whole plans and nobody's other question should wait for: files out and in, and what is left in jobs that were
 * not looked at for long. For a large plan it is done in a thread with a connection to the database of its own.
 */
export class PlanWork {
  private readonly thread: AskedThread<PlanQuestion, PlanAnswer>;
  private readonly here: PlanAnswers;

  constructor(
    private readonly store: Store,
    reader: PlanReader,
    database: Database,
    private readonly fewThings = FEW_THINGS,
    private readonly fewBytes = FEW_BYTES,
  ) {
    const limits = { memory: MEMORY, most: MOST_WAITING };
    this.thread = new AskedThread(PROGRAM, limits, database);
    this.here = new PlanAnswers(store, reader);
  }

  async file(question: FileQuestion): Promise<OutFile> {
    return ((await this.ask(question)) as { readonly file: OutFile }).file;
  }

  /**
   * A new job from a plan file; nothing of a file that has a fault is taken.
   * @param bytes of the file: a large one is handed over, and gone here
   * @returns its id
   */
  async jobFromPlan(bytes: Uint8Array, actor: Actor): Promise<string> {
    const made = await this.askWithFile({ kind: 'job-from-plan', bytes, actor });
    return (made as { readonly jobId: string }).jobId;
  }

  /** Takes the kinds of a plan file. @param bytes as above */
  async takeKinds(jobId: string, bytes: Uint8Array, actor: Actor): Promise<KindsTaken> {
    const made = await this.askWithFile({ kind: 'take-kinds', jobId, bytes, actor });
    return (made as { readonly kinds: KindsTaken }).kinds;
  }

  private async askWithFile(question: Extract<PlanQuestion, { readonly bytes: Uint8Array }>) {
    const { bytes } = question;
    if (bytes.length <= this.fewBytes) return this.here.to(question);
    // A small one may be a part of what others use as well.
    const isAlone = bytes.byteLength === bytes.buffer.byteLength;
    return this.thread.ask(question, isAlone ? [bytes.buffer as ArrayBuffer] : []);
  }

  /** Begins a rehearsal of a plan. @returns the id of its job */
  async rehearse(jobId: string, wanted: NewRehearsal, actor: Actor): Promise<string> {
    const made = await this.ask({ kind: 'rehearse', jobId, wanted, actor });
    return (made as { readonly jobId: string }).jobId;
  }

  /** How long a round would take; it is played several times over, and never where others are answered. */
  async roundTimes(jobId: string, wish: EstimateWish): Promise<RoundTimes> {
    const answer = await this.thread.ask({ kind: 'round-times', jobId, wish });
    return (answer as { readonly times: RoundTimes }).times;
  }

  /** What a job has, and what is left to do in it. */
  async counts(jobId: string): Promise<JobCounts> {
    return ((await this.ask({ kind: 'counts', jobId })) as { readonly counts: JobCounts }).counts;
  }

  /** A sheet of a list as it stands there. */
  async listLines(question: Extract<ListQuestion, { kind: 'list-lines' }>): Promise<ListLines> {
    return ((await this.ask(question)) as { readonly lines: ListLines }).lines;
  }

  /** What would become of a list. Nothing is changed. */
  async listPreview(taking: Taking): Promise<ListPreview> {
    const question = { kind: 'list-preview', ...taking } as const;
    return ((await this.ask(question)) as { readonly preview: ListPreview }).preview;
  }

  /** The edits that take every good line of a list. */
  async listDevices(taking: Taking): Promise<readonly Edit[]> {
    const question = { kind: 'list-devices', ...taking } as const;
    return ((await this.ask(question)) as { readonly edits: readonly Edit[] }).edits;
  }

  close(): Promise<void> {
    return this.thread.close();
  }

  private async ask(question: Exclude<PlanQuestion, { readonly bytes: Uint8Array }>) {
    const isSmall = (await this.store.thingCount(question.jobId)) <= this.fewThings;
    const isShort = !('list' in question) || question.list.length <= this.fewBytes / LIST_PACKED;
    return isSmall && isShort ? this.here.to(question) : this.thread.ask(question);
  }
}
