import {
  countingMac,
  formatIpv4,
  interfacesOf,
  isKeyed,
  jobViewOf,
  macOrNull,
  planOf,
  progressOf,
  SnagBook,
  thingsOf,
  type Device,
  type EditsView,
  type Evidence,
  type EvidenceKind,
  type EvidenceView,
  type Interface,
  type JobSummary,
  type JobView,
  type Plan,
  type PlanView,
  type ProgressView,
  type RevisionView,
  type SeenView,
  type Snag,
} from '@ipsonomo/core';
import { Refusal } from '../store/refusal';
import type { JobRecord, Store } from '../store/store';

/** So many lines of one device are read at once; the captures hold the rest. */
const MOST_EVIDENCE = 200;

/** Reads plans together with what the evidence says of them. Nothing computed here is stored. */
export class PlanReader {
  private readonly books = new Map<string, SnagBook>();

  constructor(private readonly store: Store) {}

  async jobs(): Promise<readonly JobSummary[]> {
    const jobs = await this.store.jobs();
    return Promise.all(jobs.map((job) => this.summary(job)));
  }

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

  async progress(jobId: string): Promise<ProgressView> {
    const [plan, evidence, revisions] = await Promise.all([
      this.store.plan(jobId),
      this.store.latestEvidence(jobId),
      this.store.revisions(jobId),
    ]);
    const seen: Record<string, SeenView> = {};
    if (evidence.size > 0)
      for (const { device, at } of interfacesOf(plan)) {
        const found = evidence.get(at.id);
        if (found) seen[at.id] = seenView(device, at, found);
      }
    return { seen, handedOver: revisions.handedOver };
  }

  /** All of a job in one answer, as the screens put it together. */
  async job(jobId: string): Promise<JobView> {
    const [job, { revision, doc }, progress] = await Promise.all([
      this.store.job(jobId),
      this.store.planState(jobId),
      this.progress(jobId),
    ]);
    const plan = planOf(doc);
    return jobViewOf(
      { id: job.id, name: job.name, revision },
      plan,
      progress,
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
    const found = await this.store.evidenceOf(jobId, interfaceId, MOST_EVIDENCE);
    return found.map(evidenceView);
  }

  private async summary(job: JobRecord): Promise<JobSummary> {
    const { subnets, devices, left, name } = await this.job(job.id);
    return { id: job.id, name, subnets: subnets.length, devices: devices.length, left };
  }
}

const CHECKS: readonly EvidenceKind[] = ['found-as-planned', 'contradicted', 'no-answer'];
const KEEPS: readonly EvidenceKind[] = ['told-to-keep', 'said-kept', 'keep-refused'];
const TROUBLES: readonly EvidenceKind[] = ['address-taken', 'twins', 'declined', 'set-refused'];
const TROUBLE_ENDS: readonly EvidenceKind[] = [
  ...TROUBLES,
  ...(['has-address', 'answered', 'named', 'given-for-now', 'told-to-keep'] as const),
  ...(['said-one-device'] as const),
];

function seenView(device: Device, at: Interface, evidence: readonly Evidence[]): SeenView {
  const counting = evidence.filter(
    (one) => one.address === undefined || one.address === at.address,
  );
  const { stage, notches } = progressOf(device.way, at, counting);
  const mac = countingMac(device.way, at, counting);
  const last = (kinds: readonly EvidenceKind[]): Evidence | undefined =>
    counting.findLast((one) => kinds.includes(one.kind) && (!one.mac || one.mac === mac));
  const trouble = last(TROUBLE_ENDS);
  return {
    stage,
    notches: notches.map(({ by, ...notch }) => ({ ...notch, by: by ? evidenceView(by) : null })),
    check: viewOrNull(last(CHECKS)),
    keep: viewOrNull(last(KEEPS)),
    askedBy: isKeyed(device.way) ? macOrNull(mac) : null,
    arrived: at.mac === undefined && !isKeyed(device.way) ? arrivedOf(counting) : null,
    before: at.mac === undefined ? beforeOf(counting) : null,
    trouble: trouble && TROUBLES.includes(trouble.kind) ? evidenceView(trouble) : null,
  };
}

/** Who answered alone where such a device is at first. */
function beforeOf(evidence: readonly Evidence[]): string | null {
  const found = evidence.findLast(({ kind }) => kind === 'found-before');
  return found?.facts['count'] === 1 ? String(found.facts['found']) : null;
}

const arrivedOf = (evidence: readonly Evidence[]): string | null =>
  macOrNull(evidence.findLast(({ kind }) => kind === 'kept' || kind === 'has-address')?.mac);

const viewOrNull = (one: Evidence | undefined): EvidenceView | null =>
  one ? evidenceView(one) : null;

export const evidenceView = (one: Evidence): EvidenceView => ({
  ...one,
  mac: macOrNull(one.mac),
  address: one.address === undefined ? null : formatIpv4(one.address),
});

/** The planned interface with this id, or a refusal by the caller. */
export const findInterface = (plan: Plan, interfaceId: string) =>
  interfacesOf(plan).find(({ at }) => at.id === interfaceId);
