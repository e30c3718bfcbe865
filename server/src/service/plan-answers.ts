import { FALL_WORDS } from '@ipsonomo/language/kept';
import type {
  JobCounts,
  KindsTaken,
  ListLines,
  ListPreview,
  NewRehearsal,
  RoundTimes,
} from '@ipsonomo/core/api';
import { planOf, type Edit, type PlanDoc } from '@ipsonomo/core/plan';
import { estimateRound, type EstimateWish } from '@ipsonomo/core/round';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import { PlanChanger } from './change-plan';
import { kindsFile, takeKindsFromFile } from './kinds';
import { Papers } from './papers';
import { listDevices, listLines, listPreview, type ListQuestion } from './list-answers';
import { jobFromFile, planFile } from './plan-files';
import { PlanReader } from './read-plan';
import { rehearse } from './begin-rehearsal';

/** A file that leaves the house. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export type FileQuestion =
  | { readonly kind: 'kinds'; readonly jobId: string }
  | { readonly kind: 'plan'; readonly jobId: string; readonly withPapers: boolean };

export type PlanQuestion =
  | FileQuestion
  | ListQuestion
  | { readonly kind: 'job-from-plan'; readonly bytes: Uint8Array; readonly actor: Actor }
  | {
      readonly kind: 'take-kinds';
      readonly jobId: string;
      readonly bytes: Uint8Array;
      readonly actor: Actor;
    }
  | {
      readonly kind: 'rehearse';
      readonly jobId: string;
      readonly wanted: NewRehearsal;
      readonly actor: Actor;
    }
  | { readonly kind: 'round-times'; readonly jobId: string; readonly wish: EstimateWish }
  | { readonly kind: 'counts'; readonly jobId: string };

export type PlanAnswer =
  | { readonly file: OutFile }
  | { readonly jobId: string }
  | { readonly kinds: KindsTaken }
  | { readonly counts: JobCounts }
  | { readonly times: RoundTimes }
  | { readonly lines: ListLines }
  | { readonly preview: ListPreview }
  | { readonly edits: readonly Edit[] };

// Nobody listens for a job that is only being made.
const UNHEARD = { changed: () => Promise.resolve(), otherwise: () => undefined };

/** Answers what needs a whole plan, in whatever thread it is asked. */
export class PlanAnswers {
  readonly papers: Papers;
  readonly changer: PlanChanger;

  constructor(
    readonly store: Store,
    private readonly reader = new PlanReader(store),
  ) {
    this.papers = new Papers(store, Date.now);
    this.changer = new PlanChanger(store, Date.now, UNHEARD);
  }

  async to(question: PlanQuestion): Promise<PlanAnswer> {
    switch (question.kind) {
      case 'job-from-plan': {
        const { bytes, actor } = question;
        return { jobId: await jobFromFile(this.changer, this.papers, textOf(bytes), actor) };
      }
      case 'take-kinds': {
        const { jobId, bytes, actor } = question;
        return { kinds: await takeKindsFromFile(this, jobId, textOf(bytes), actor) };
      }
      case 'rehearse': {
        const { jobId, wanted, actor } = question;
        return { jobId: await rehearse(this, jobId, wanted, actor) };
      }
      case 'round-times': {
        const plan = planOf(await this.docOf(question.jobId));
        return { times: estimateRound(plan, question.wish) };
      }
      case 'counts':
        return { counts: await this.counts(question.jobId) };
      case 'list-lines':
        return { lines: listLines(question) };
      case 'list-preview':
        return { preview: listPreview(question, await this.docOf(question.jobId)) };
      case 'list-devices':
        return { edits: listDevices(question, await this.docOf(question.jobId)).edits };
      default: {
        const { name, text } = await this.written(question);
        // A copy of its own: what is handed over may not be a part of a pool of buffers.
        return { file: { name, bytes: new Uint8Array(Buffer.from(text)) } };
      }
    }
  }

  private async docOf(jobId: string): Promise<PlanDoc> {
    return (await this.store.planState(jobId)).doc;
  }

  private written(question: FileQuestion) {
    switch (question.kind) {
      case 'kinds':
        return kindsFile(this.store, this.papers, question.jobId);
      case 'plan':
        return planFile(this.store, this.papers, question.jobId, question.withPapers);
    }
  }

  private async counts(jobId: string): Promise<JobCounts> {
    const { subnets, devices, left } = await this.reader.job(jobId);
    return { subnets: subnets.length, devices: devices.length, left };
  }
}

/** A plan file is UTF-8, as JSON is (RFC 8259 §8.1). */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw Refusal.of('file.json', 'The file', { why: FALL_WORDS.noUtf8 });
  }
}
