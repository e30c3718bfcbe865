import { raw } from 'objection';
import type { Knex } from 'knex';
import type { HandedOver, RevisionView, Rehearsed } from '@ipsonomo/core/api';
import { planOf, type Plan, type ThingDoc } from '@ipsonomo/core/plan';
import { HandOverRow, JobRow, PaperRow, RevisionRow, RunRow, ThingRow } from './models';
import { EvidenceStore } from './evidence-store';
import { PlanStore, type Change, type Changed, type Decision, type PlanState } from './plan-store';
import { asking } from './asking';
import { letGo, setAway } from './database';
import { DoorStore } from './door-store';
import { PeopleStore } from './people-store';
import { RehearsalStore } from './rehearsal-store';
import { BundleStore } from './bundle-store';
import { PhotoStore } from './photo-store';
import { ServerStore } from './server-store';
import { TakenCallStore } from './taken-call-store';
import { WholeJobStore } from './whole-job-store';
import { ProofStore } from './proof-store';
import { Refusal } from './refusal';

export interface JobRecord {
  readonly id: string;
  readonly name: string;
}

/** A job, the last of each that its summary depends on, and that summary where it was made from these. */
export interface JobHead<T> extends JobRecord {
  readonly rehearses: Rehearsed | null;
  readonly archived: boolean;
  readonly hasPracticeSite: boolean;
  readonly revision: number;
  readonly place: string;
  readonly handedOver: number;
  readonly summary: T | null;
}

const MOST_REVISIONS = 1000;

export type RevisionListRow = Omit<RevisionView, 'at'> & {
  readonly at: Date;
  readonly account_id: string | null;
};

/** The plan and the evidence in PostgreSQL. The only room that knows tables. */
export class Store {
  readonly proofs: ProofStore;
  readonly evidence: EvidenceStore;
  readonly door: DoorStore;
  readonly people: PeopleStore;
  readonly rehearsals: RehearsalStore;
  readonly whole: WholeJobStore;
  readonly takenCalls: TakenCallStore;
  readonly servers: ServerStore;
  readonly bundles: BundleStore;
  readonly photos: PhotoStore;
  private readonly plans: PlanStore;

  constructor(private readonly knex: Knex) {
    this.plans = new PlanStore(knex);
    this.evidence = new EvidenceStore(knex);
    this.proofs = new ProofStore(knex);
    this.door = new DoorStore(knex);
    this.people = new PeopleStore(knex);
    this.rehearsals = new RehearsalStore(knex);
    this.whole = new WholeJobStore(knex);
    this.takenCalls = new TakenCallStore(knex);
    this.servers = new ServerStore(knex);
    this.photos = new PhotoStore(knex);
    this.bundles = new BundleStore(knex, this.plans);
  }

  /** Somebody found that its connections lead nowhere: whoever waits for an answer on one is refused. */
  letGo(): void {
    letGo(this.knex);
  }

  /** The database is out of reach for now, or there again: nobody waits for what cannot come. */
  setAway(isAway: boolean): void {
    setAway(this.knex, isAway);
  }

  async isAlive(): Promise<boolean> {
    return asking(async () => (await this.knex.raw('select 1')) !== undefined);
  }

  jobs(): Promise<readonly JobRecord[]> {
    return asking(() => JobRow.query(this.knex).select('id', 'name').orderBy('created_at'));
  }

  /** Every job with what was kept of it, as far as nothing is newer than that. @param madeBy by whom it was kept */
  jobHeads<T>(madeBy: string): Promise<readonly JobHead<T>[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly JobHead<T>[] }>(
        `select head.*, kept.body as summary from (
           select id, name, created_at, archived_at is not null as archived,
             has_practice_site as "hasPracticeSite",
             (select json_build_object('id', of_job, 'name', of_name) from rehearsal
               where job_id = job.id) as rehearses,
             coalesce((select max(number) from revision where job_id = job.id), 0) as revision,
             coalesce((select max(place) from evidence where job_id = job.id), 0)::text as place,
             coalesce((select max(revision) from hand_over where job_id = job.id), 0)
               as "handedOver"
           from job) as head
         left join job_summary as kept on kept.job_id = head.id and kept.made_by = :madeBy
           and kept.revision = head.revision and kept.place = head.place::bigint
           and kept.handed_over = head."handedOver"
         order by head.created_at`,
        { madeBy },
      );
      return rows;
    });
  }

  keepSummary(
    {
      id,
      revision,
      place,
      handedOver,
    }: Pick<JobHead<never>, 'id' | 'revision' | 'place' | 'handedOver'>,
    madeBy: string,
    summary: object,
  ): Promise<void> {
    return asking(async () => {
      await this.knex('job_summary')
        .insert({
          ...{ job_id: id, made_by: madeBy, revision, place, handed_over: handedOver },
          body: JSON.stringify(summary),
        })
        .onConflict('job_id')
        .merge();
    });
  }

  job(id: string): Promise<JobRecord> {
    return asking(async () => {
      const row = await JobRow.query(this.knex).findById(id);
      if (!row) throw Refusal.of('thing.unknown', 'job');
      return row;
    });
  }

  renameJob(id: string, name: string): Promise<void> {
    return asking(async () => {
      await JobRow.query(this.knex).findById(id).patch({ name });
    });
  }

  archiveJob(id: string, archived: boolean): Promise<void> {
    return asking(async () => {
      const at = archived ? new Date() : null;
      await JobRow.query(this.knex).findById(id).patch({ archived_at: at });
    });
  }

  /** Whether it is there, and not put away. */
  jobStands(id: string): Promise<boolean> {
    return asking(async () => {
      const row = await JobRow.query(this.knex).findById(id).select('archived_at');
      return row !== undefined && row.archived_at === null;
    });
  }

  isArchived(id: string): Promise<boolean> {
    return asking(async () => {
      const row = await JobRow.query(this.knex).findById(id).select('archived_at');
      return row?.archived_at != null;
    });
  }

  /** What other jobs have of kinds of their own; rehearsals and archived ones apart. */
  kindsOfOthers(
    jobId: string,
  ): Promise<readonly (JobRecord & { readonly kinds: readonly ThingDoc[] })[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{
        rows: readonly (JobRecord & { readonly kinds: readonly ThingDoc[] })[];
      }>(
        `select job.id, job.name, json_agg(thing.body order by thing.ordinal) as kinds
           from job join thing on thing.job_id = job.id and thing.type = 'kind'
          where job.id <> :jobId and job.archived_at is null
            and not exists (select 1 from rehearsal where rehearsal.job_id = job.id)
          group by job.id, job.name, job.created_at order by job.created_at`,
        { jobId },
      );
      return rows;
    });
  }

  /** The jobs for whose devices a practice site ships. */
  practiceSites(): Promise<readonly string[]> {
    return asking(async () => {
      const rows = await JobRow.query(this.knex).select('id').where('has_practice_site', true);
      return rows.map(({ id }) => id);
    });
  }

  /** @param hasPracticeSite one ships for its devices */
  addJob(name: string, hasPracticeSite = false): Promise<JobRecord> {
    return asking(() =>
      JobRow.transaction(this.knex, async (trx) => {
        const job = await JobRow.query(trx).insertAndFetch({
          name,
          has_practice_site: hasPracticeSite,
        });
        await this.plans.begin(job.id, trx);
        return job;
      }),
    );
  }

  async plan(jobId: string): Promise<Plan> {
    return planOf((await this.planState(jobId)).doc);
  }

  planState(jobId: string): Promise<PlanState> {
    return asking(() => this.plans.read(jobId));
  }

  /**
   * Changes a plan: the current one is read under a lock, `decide` says what to change, and the
   * revision is written with it. Nothing is written where somebody else changed the same meanwhile.
   */
  change<T>(
    change: Change,
    decide: (state: PlanState) => Decision<T> | Refusal,
  ): Promise<Changed<T>> {
    return asking(() => this.plans.change(change, decide));
  }

  /** Revisions after this one, oldest first, with their edits. */
  editsSince(jobId: string, revision: number): Promise<readonly RevisionRow[]> {
    return asking(() =>
      RevisionRow.query(this.knex)
        .where('job_id', jobId)
        .where('number', '>', revision)
        .orderBy('number'),
    );
  }

  /** Newest first, without their edits. */
  revisionList(jobId: string): Promise<readonly RevisionListRow[]> {
    return asking(() =>
      RevisionRow.query(this.knex)
        .select(
          ...['number', 'at', 'person', 'account_id', 'what', 'name', 'undoes'],
          raw('jsonb_array_length(edits)').as('count'),
        )
        .where('job_id', jobId)
        .orderBy('number', 'desc')
        .limit(MOST_REVISIONS)
        .castTo<RevisionListRow[]>(),
    );
  }

  nameRevision(jobId: string, number: number, name: string): Promise<void> {
    return asking(async () => {
      const changed = await RevisionRow.query(this.knex)
        .where({ job_id: jobId, number })
        .patch({ name });
      if (changed === 0) throw Refusal.of('thing.unknown', 'revision');
    });
  }

  /** How many things a plan has. */
  thingCount(jobId: string): Promise<number> {
    return asking(() => ThingRow.query(this.knex).where('job_id', jobId).resultSize());
  }

  /** The number of the last revision, and of the one last handed over. */
  revisions(jobId: string): Promise<{ readonly last: number; readonly handedOver: number }> {
    return asking(async () => {
      const last = await RevisionRow.query(this.knex)
        .where('job_id', jobId)
        .max('number as last')
        .first()
        .castTo<{ last: number | null } | undefined>();
      const handed = await HandOverRow.query(this.knex)
        .where('job_id', jobId)
        .max('revision as last')
        .first()
        .castTo<{ last: number | null } | undefined>();
      return { last: last?.last ?? 0, handedOver: handed?.last ?? 0 };
    });
  }

  addHandOver(
    jobId: string,
    { reader, person, revision, formats }: Omit<HandedOver, 'at'>,
  ): Promise<void> {
    return asking(async () => {
      await HandOverRow.query(this.knex).insert({
        ...{ job_id: jobId, person, what: reader, revision, formats },
      });
    });
  }

  /** What each reader was handed last. */
  handOvers(jobId: string): Promise<readonly HandedOver[]> {
    return asking(async () => {
      const rows = await HandOverRow.query(this.knex)
        .where('job_id', jobId)
        .distinctOn('what')
        .orderBy(['what', { column: 'at', order: 'desc' }, { column: 'id', order: 'desc' }]);
      return rows.map(({ what, at, person, revision, formats }) => ({
        ...{ reader: what, at: at.getTime(), person, revision, formats },
      }));
    });
  }

  /** What the papers of a job's plan hold, by their ids, for its file: in base64. */
  async papersOfPlan(jobId: string): Promise<ReadonlyMap<string, string>> {
    const { kinds } = await this.plan(jobId);
    const papers = new Map<string, string>();
    for (const id of new Set(kinds.flatMap((kind) => kind.papers.map((paper) => paper.id)))) {
      const bytes = await this.paper(jobId, id);
      if (bytes) papers.set(id, bytes.toString('base64'));
    }
    return papers;
  }

  /** The papers that are here, with how many bytes each has. */
  paperSizes(jobId: string): Promise<ReadonlyMap<string, number>> {
    return asking(async () => {
      const rows = await PaperRow.query(this.knex)
        .select('id', raw('length(bytes)').as('size'))
        .where('job_id', jobId)
        .castTo<{ id: string; size: number }[]>();
      return new Map(rows.map(({ id, size }) => [id, size]));
    });
  }

  addPaper(jobId: string, id: string, bytes: Buffer): Promise<void> {
    return asking(async () => {
      await this.knex('paper').insert({ job_id: jobId, id, bytes }).onConflict().ignore();
    });
  }

  /** Papers that no kind of the plan names; younger ones may come back by an undo. */
  dropPapers(jobId: string, named: readonly string[], before: Date): Promise<void> {
    return asking(async () => {
      await PaperRow.query(this.knex)
        .where('job_id', jobId)
        .where('at', '<', before)
        .whereNotIn('id', [...named])
        .delete();
    });
  }

  paper(jobId: string, id: string): Promise<Buffer | undefined> {
    return asking(
      async () =>
        (await PaperRow.query(this.knex).findById([jobId, id]).where('job_id', jobId))?.bytes,
    );
  }

  addRun(jobId: string, source: string, person: string): Promise<RunRow> {
    return asking(() => RunRow.query(this.knex).insertAndFetch({ job_id: jobId, source, person }));
  }

  endRun(id: string): Promise<void> {
    return asking(async () => {
      await RunRow.query(this.knex)
        .findById(id)
        .whereNull('ended_at')
        .patch({ ended_at: new Date() });
    });
  }

  /** Runs that a crash of this server left open end with the last thing they saw. */
  endLeftRuns(): Promise<void> {
    return asking(async () => {
      await this.knex.raw(`
        update run set ended_at = coalesce(
          (select max(at) from evidence where evidence.run_id = run.id), started_at)
        where ended_at is null and coalesce(server_id = own_server(), true)`);
    });
  }

  runs(jobId: string): Promise<readonly RunRow[]> {
    return asking(() =>
      RunRow.query(this.knex).where('job_id', jobId).orderBy('started_at', 'desc').limit(50),
    );
  }
}
