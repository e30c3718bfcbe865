import type { Knex } from 'knex';
import type { Transaction } from 'objection';
import type { PlanDoc } from '@ipsonomo/core/plan';
import { asking } from './asking';
import { JobRow } from './models';
import type { PlanStore } from './plan-store';
import { Refusal } from './refusal';

/** A revision as it is carried: who made it when, by the clock that was there. */
export interface CarriedRevision {
  readonly uid: string;
  readonly depth: number;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly person: string;
  readonly what: string;
  readonly edits: readonly object[];
}

/** A link of a chain as it is carried: a row of evidence, or how many were folded before its place. */
export type CarriedLink = { readonly place: number; readonly chain: string } & (
  { readonly evidence: object } | { readonly folded: number }
);

export interface CarriedJob {
  readonly id: string;
  readonly name: string;
}

export interface TakenBundle {
  readonly serverName: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly person: string;
  readonly revisions: number;
  readonly evidence: number;
}

/** By the two revisions, and of what. */
export interface Settled {
  readonly stands: string;
  readonly lost: string;
  readonly what: string;
}

/** Rows that are read, or written, at once. */
const PIECE = 500;
/** Tables that are carried row by row, each under the name of its lines, with what is said only when one of them ends. */
const AT_ITS_END = {
  run: 'ended_at = excluded.ended_at',
  proof:
    'ended_at = excluded.ended_at, how = excluded.how, strangers = excluded.strangers, counts = null',
} as const;
export const CARRIED_ROWS = ['run', 'proof'] as const;
export type CarriedTable = (typeof CARRIED_ROWS)[number];

const REVISIONS = `
  select uid, depth, (extract(epoch from at) * 1000)::float8 as at, person, what, edits, number
  from revision where job_id = :jobId and not is_joining
  union all
  select uid, depth, (extract(epoch from at) * 1000)::float8, person, what, edits, 0
  from revision_elsewhere where job_id = :jobId`;

/** What goes from one installation to another, and what came. */
export class BundleStore {
  constructor(
    private readonly knex: Knex,
    private readonly plans: PlanStore,
  ) {}

  /** All that is known of a plan's history, wherever it was made, with the own edits in their order. */
  history(jobId: string): Promise<{
    readonly revision: number;
    readonly all: readonly CarriedRevision[];
    /** From the first to the last, those that only joined others among them. */
    readonly own: readonly (readonly object[])[];
  }> {
    return asking(() =>
      this.knex.transaction(
        async (trx) => {
          const { rows: all } = await trx.raw<{ rows: readonly CarriedRevision[] }>(REVISIONS, {
            jobId,
          });
          const own = (await trx('revision')
            .select('number', 'edits')
            .where('job_id', jobId)
            .orderBy('number')) as { number: number; edits: readonly object[] }[];
          return { revision: own.at(-1)?.number ?? 0, all, own: own.map(({ edits }) => edits) };
        },
        { isolationLevel: 'repeatable read', readOnly: true },
      ),
    );
  }

  /** Every link of the own chain of evidence, with its piece. */
  async *links(jobId: string): AsyncGenerator<CarriedLink> {
    let last = 0;
    for (;;) {
      const piece = await asking(async () => {
        const { rows } = await this.knex.raw<{ rows: readonly { readonly link: CarriedLink }[] }>(
          `select link from (
             select place, jsonb_build_object('place', place, 'chain', encode(chain, 'hex'),
               'evidence', to_jsonb(one)) as link
             from evidence as one where job_id = :jobId and place > :last
             union all
             select last_place, jsonb_build_object('place', last_place,
               'chain', encode(chain, 'hex'), 'folded', last_place - first_place + 1)
             from evidence_gap where job_id = :jobId and last_place > :last
           ) as one order by place limit ${PIECE}`,
          { jobId, last },
        );
        return rows.map(({ link }) => link);
      });
      for (const link of piece) yield link;
      last = piece.at(-1)?.place ?? last;
      if (piece.length < PIECE) return;
    }
  }

  rows(jobId: string, table: CarriedTable): Promise<readonly object[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly { readonly row: object }[] }>(
        'select to_jsonb(one) as row from ?? as one where job_id = ?',
        [table, jobId],
      );
      return rows.map(({ row }) => row);
    });
  }

  /** Takes all of a bundle or nothing of it. */
  taking<T>(take: (into: BundleTaking) => Promise<T>): Promise<T> {
    return asking(() =>
      JobRow.transaction(this.knex, (trx) => take(new BundleTaking(trx, this.plans))),
    );
  }

  settle(jobId: string, settled: Settled, person: string): Promise<void> {
    return asking(async () => {
      await this.knex('clash_settled')
        .insert({ job_id: jobId, person, ...settled })
        .onConflict()
        .ignore();
    });
  }

  settled(jobId: string): Promise<readonly Settled[]> {
    return asking(() =>
      this.knex('clash_settled').select('stands', 'lost', 'what').where('job_id', jobId),
    );
  }

  /** What was brought so far, the last first. */
  taken(jobId: string): Promise<readonly TakenBundle[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly TakenBundle[] }>(
        `select server_name as "serverName", (extract(epoch from at) * 1000)::float8 as at, person,
           revisions, evidence
         from bundle_taken where job_id = ? order by at desc limit 50`,
        [jobId],
      );
      return rows;
    });
  }
}

/** A bundle on its way in; what it brings stands or falls together. */
export class BundleTaking {
  private job = '';
  private server = '';
  private lastChain = '';

  constructor(
    private readonly trx: Transaction,
    private readonly plans: PlanStore,
  ) {}

  /** Where the job is not here, it begins as it was before anything was changed. @returns whether it is new here */
  async begin(job: CarriedJob, server: string, base: PlanDoc): Promise<boolean> {
    [this.job, this.server] = [job.id, server];
    // Two who bring the same job at once come one after the other.
    await this.trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 20261202))', [job.id]);
    if (await JobRow.query(this.trx).findById(job.id)) return false;
    const names = new Set((await JobRow.query(this.trx).select('name')).map(({ name }) => name));
    let free = job.name;
    for (let more = 2; names.has(free); more += 1) free = `${job.name} ${more}`;
    await JobRow.query(this.trx).insert({ id: job.id, name: free });
    await this.plans.begin(job.id, this.trx, base);
    return true;
  }

  /** @returns how many of them were not known */
  async revisions(revisions: readonly CarriedRevision[]): Promise<number> {
    const { rows } = await this.trx.raw<{ rows: readonly unknown[] }>(
      `insert into revision_elsewhere (job_id, uid, depth, at, person, what, edits, server_id)
       select cast(:job as uuid), uid, depth, to_timestamp(at / 1000), person, what, edits, cast(:server as uuid)
       from jsonb_to_recordset(cast(:revisions as jsonb))
         as one(uid uuid, depth int, at float8, person text, what text, edits jsonb)
       where not exists (select from revision where job_id = :job and revision.uid = one.uid)
       on conflict do nothing returning 1`,
      { job: this.job, server: this.server, revisions: JSON.stringify(revisions) },
    );
    return rows.length;
  }

  /** A row that is here already stays as it is, until it has ended. */
  async rows(table: CarriedTable, rows: readonly object[]): Promise<void> {
    const own = rows.map((row) => ({ ...row, job_id: this.job }));
    await this.trx.raw(
      `insert into ?? as known select * from jsonb_populate_recordset(null::??, ?::jsonb)
       on conflict (id) do update set ${AT_ITS_END[table]}
       where known.ended_at is null and known.job_id = excluded.job_id`,
      [table, table, JSON.stringify(own)],
    );
  }

  /** Refuses with `bundle.chain` where they are not what was sealed. @returns how many pieces were not known */
  async links(links: readonly CarriedLink[]): Promise<number> {
    const lines = JSON.stringify(
      links.map((link) =>
        'evidence' in link ? { ...link, evidence: { ...link.evidence, job_id: this.job } } : link,
      ),
    );
    const broken = await this.trx.raw<{ rows: readonly { readonly at: string | null }[] }>(
      'select chain_breaks_at(?::jsonb, ?) as at',
      [lines, this.lastChain],
    );
    const at = broken.rows[0]?.at;
    if (at !== null && at !== undefined)
      throw Refusal.of('bundle.chain', '', { place: Number(at) });
    this.lastChain = links.at(-1)?.chain ?? this.lastChain;
    await this.keepChain(lines);
    return this.pieces(lines);
  }

  /** The chain that others kept, so that it can be looked at here. Refuses with `bundle.history` where it was another before. */
  private async keepChain(lines: string): Promise<void> {
    const { job, server } = this;
    const { rows } = await this.trx.raw<{ rows: readonly { readonly same: boolean }[] }>(
      `with brought as (
         select (line->>'place')::bigint as place, (line->>'folded')::bigint as folded,
           decode(line->>'chain', 'hex') as chain,
           case when line->'evidence' is not null
             then evidence_content(jsonb_populate_record(null::evidence, line->'evidence')) end
             as content
         from jsonb_array_elements(cast(:lines as jsonb)) as line
       ), kept as (
         insert into evidence_elsewhere (job_id, server_id, place, content, folded, chain)
         select cast(:job as uuid), cast(:server as uuid), place, content, folded, chain from brought
         on conflict do nothing
       )
       select known.chain = brought.chain as same from brought
       join evidence_elsewhere as known
         on known.job_id = :job and known.server_id = :server and known.place = brought.place
       where known.chain <> brought.chain limit 1`,
      { job, server, lines },
    );
    if (rows.length > 0) throw Refusal.of('bundle.history', '');
  }

  private async pieces(lines: string): Promise<number> {
    const { rows } = await this.trx.raw<{ rows: readonly unknown[] }>(
      `with brought as (
         select (line->>'place')::bigint as place,
           jsonb_populate_record(null::evidence, line->'evidence') as piece
         from jsonb_array_elements(cast(:lines as jsonb)) as line where line->'evidence' is not null
       )
       insert into evidence (job_id, interface_id, run_id, sequence, kind, at, mac, address, source,
         person, facts, bytes)
       select cast(:job as uuid), (piece).interface_id, (piece).run_id, (piece).sequence, (piece).kind,
         (piece).at, (piece).mac, (piece).address, (piece).source, (piece).person, (piece).facts,
         (piece).bytes
       from brought where evidence_content(piece) not in
         (select evidence_content(known) from evidence as known where known.job_id = :job
          and known.at in (select (piece).at from brought))
       order by place on conflict (run_id, sequence) do nothing returning 1`,
      { job: this.job, lines },
    );
    return rows.length;
  }

  async file(table: 'paper' | 'photo', id: string, bytes: Buffer): Promise<void> {
    await this.trx(table).insert({ job_id: this.job, id, bytes }).onConflict().ignore();
  }

  async note(taken: Omit<TakenBundle, 'at'> & { readonly digest: string }): Promise<void> {
    await this.trx('bundle_taken')
      .insert({
        ...{ job_id: this.job, server_id: this.server, server_name: taken.serverName },
        ...{ digest: taken.digest, person: taken.person },
        ...{ revisions: taken.revisions, evidence: taken.evidence },
      })
      .onConflict()
      .ignore();
  }
}
