import {
  jobViewOf,
  thingsOf,
  type EditsView,
  type EvidenceView,
  type JobView,
  type PlanView,
  type ProgressView,
  type RevisionView,
} from '@ipsonomo/core/api';
import { planOf, type Evidence, type Plan } from '@ipsonomo/core/plan';
import { SnagBook, type Snag } from '@ipsonomo/core/snags';
import { LRUCache } from 'lru-cache';
import { MOST_KEPT } from '../common/most-kept';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { SeenBook, type Known } from './seen-book';
import { evidenceView } from './seen-view';

/** So many lines of one device are read at once; the captures hold the rest. */
const MOST_EVIDENCE = 200;

export interface PlanNow extends Known {
  readonly book: SeenBook;
}

/** Reads plans together with what the evidence says of them. */
export class PlanReader {
  private readonly books = new LRUCache<string, SnagBook>({ max: MOST_KEPT });
  private readonly seen = new LRUCache<string, SeenBook>({ max: MOST_KEPT });

  constructor(private readonly store: Store) {}

  /** The plan as text, for a page that computes the rest by itself. */
  async plan(jobId: string): Promise<PlanView> {
    const [job, state] = await Promise.all([this.store.job(jobId), this.store.planState(jobId)]);
    const { revision, lastNamed, doc } = state;
    return { id: job.id, name: job.name, revision, lastNamed, things: thingsOf(doc) };
  }

  /** What happened to a plan after a revision, for a page that has it as it was then. */
  async editsSince(jobId: string, since: number): Promise<EditsView> {
    if (!Number.isInteger(since) || since < 0) throw Refusal.of('thing.unknown', 'revision');
    const { revision, lastNamed } = await this.store.planState(jobId);
    const rows = since >= revision ? [] : await this.store.editsSince(jobId, since);
    const revisions = rows.map(({ number, person, edits }) => ({ number, person, edits }));
    return { revision, lastNamed, revisions };
  }

  /** @param mark what the caller has already */
  async progress(jobId: string, mark?: string): Promise<ProgressView> {
    const [{ book }, { handedOver }] = await Promise.all([
      this.now(jobId),
      this.store.revisions(jobId),
    ]);
    return { ...book.since(mark), handedOver };
  }

  /** The plan as it is now, and what was seen of it. */
  async now(jobId: string): Promise<PlanNow> {
    const [state, latest] = await Promise.all([
      this.store.planState(jobId),
      this.store.evidence.latest(jobId),
    ]);
    let book = this.seen.get(jobId);
    if (!book) this.seen.set(jobId, (book = new SeenBook()));
    const { revision } = state;
    return { ...(await book.bring({ revision, plan: planOf(state.doc), latest })), book };
  }

  /** All of a job in one answer, as the screens put it together. */
  async job(jobId: string): Promise<JobView> {
    const [job, { plan, revision, book }, { handedOver }] = await Promise.all([
      this.store.job(jobId),
      this.now(jobId),
      this.store.revisions(jobId),
    ]);
    return jobViewOf(
      { id: job.id, name: job.name, revision },
      plan,
      { ...book.since(undefined), handedOver },
      this.snags(jobId, plan),
    );
  }

  /** The snags of a plan; only what an edit touched is looked at again. */
  private snags(jobId: string, plan: Plan): readonly Snag[] {
    let book = this.books.get(jobId);
    if (!book) this.books.set(jobId, (book = new SnagBook()));
    return book.update(plan);
  }

  async revisions(jobId: string): Promise<readonly RevisionView[]> {
    const rows = await this.store.revisionList(jobId);
    return rows.map((row) => ({ ...row, at: row.at.getTime() }));
  }

  async evidenceOf(jobId: string, interfaceId: string): Promise<readonly EvidenceView[]> {
    const found = await this.store.evidence.of(jobId, interfaceId, MOST_EVIDENCE);
    return found.map(({ again, ...one }): EvidenceView => {
      const view = evidenceView(one as Evidence);
      return again ? { ...view, again } : view;
    });
  }
}
