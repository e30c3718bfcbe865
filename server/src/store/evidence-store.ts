import { raw } from 'objection';
import type { Knex } from 'knex';
import type { WrittenTick } from '@ipsonomo/core/api';
import type { Evidence } from '@ipsonomo/core/plan';
import { asking } from './asking';
import { insertEvidence, type NewEvidence } from './evidence';
import { LatestEvidence, type Latest } from './latest-evidence';
import { EvidenceRow } from './models';
import { toEvidence } from './rows';
import type { Waited } from '../common/waited';
import { doneBefore } from './waited';

/** A piece of evidence at which the chain of its job breaks. */
export interface BrokenEvidence {
  readonly jobId: string;
  /** Empty where pieces that were folded do not follow on what is there. */
  readonly id: string;
  readonly interfaceId: string;
  readonly kind: string;
}

/** A piece, and how often the same was seen again that is only counted now. */
export type CountedEvidence = Evidence & {
  readonly again: { readonly count: number; readonly until: number } | undefined;
};

/** Pieces of a job that were folded, by whom and when last. */
export interface Folded {
  readonly jobId: string;
  readonly count: number;
  readonly person: string;
  readonly at: Date;
}

const COLUMNS = ['id', 'interface_id', 'kind', 'at', 'mac', 'address', 'source', 'person', 'facts'];

type CountedRow = EvidenceRow & { readonly count: number | null; readonly until: Date | null };

/** Evidence: what was seen and decided, chained a job. */
export class EvidenceStore {
  private readonly known: LatestEvidence;

  constructor(private readonly knex: Knex) {
    this.known = new LatestEvidence(knex);
  }

  /** Appends evidence; what a journal holds twice, and an act that was sent twice, is written once. */
  append(evidence: readonly NewEvidence[], waited?: Waited): Promise<void> {
    const jobId = evidence[0]?.jobId;
    if (!waited || jobId === undefined) return asking(() => insertEvidence(this.knex, evidence));
    return asking(() =>
      this.knex.transaction(async (trx) => {
        if (!(await doneBefore(trx, jobId, waited))) await insertEvidence(trx, evidence);
      }),
    );
  }

  /**
   * Pieces of evidence that are not what they were when they were written, or that one before them is missing of: the
   * chain of their job breaks there. Empty where all is as it was, what was folded included.
   */
  audit(most = 100): Promise<readonly BrokenEvidence[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: BrokenEvidence[] }>(
        `with link as (
           select job_id, place as first, place as last, chain, id from evidence
           union all select job_id, first_place, last_place, chain, null from evidence_gap
         ), chained as (
           select *, lag(chain) over before as chain_before,
             coalesce(lag(last) over before, 0) + 1 as due
           from link window before as (partition by job_id order by first, last)
         )
         select chained.job_id as "jobId", coalesce(chained.id::text, '') as id,
           coalesce(one.interface_id, '') as "interfaceId", coalesce(one.kind, 'folded') as kind
         from chained left join evidence one on one.id = chained.id
         where chained.first <> due
           or (one.id is not null and one.chain is distinct from evidence_seal(one, chain_before))
         order by chained.job_id, chained.first limit ?`,
        [most],
      );
      return rows;
    });
  }

  /** Where the table of the latest evidence does not say what all of it says. */
  auditLatest(most = 100): Promise<readonly Omit<BrokenEvidence, 'id'>[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: Omit<BrokenEvidence, 'id'>[] }>(
        `select coalesce(due.job_id, kept.job_id) as "jobId",
           coalesce(due.interface_id, kept.interface_id) as "interfaceId",
           coalesce(due.kind, kept.kind) as kind
         from latest_evidence_due() as due
         full join latest_evidence as kept on kept.evidence_id = due.evidence_id
         where kept.evidence_id is null or due.evidence_id is null
         limit ?`,
        [most],
      );
      return [...new Map(rows.map((row) => [JSON.stringify(row), row])).values()];
    });
  }

  /** Makes it anew. Asked as the owner of the tables. */
  rebuildLatest(): Promise<void> {
    return asking(async () => {
      await this.knex.transaction(async (trx) => {
        await trx.raw('lock table evidence in share row exclusive mode');
        await trx.raw('delete from latest_evidence');
        await trx.raw('insert into latest_evidence select * from latest_evidence_due()');
      });
    });
  }

  /**
   * R-FOLD: pieces from before a time that say that a device asked, as it had asked before and asked again later, become a
   * count of the first of them. Asked as the owner of the tables.
   * @returns how many, by job
   */
  fold(before: Date, person: string): Promise<readonly { jobId: string; count: number }[]> {
    return asking(async () => {
      const jobs = await this.knex('job').select<{ id: string }[]>('id').orderBy('created_at');
      const folded: { jobId: string; count: number }[] = [];
      for (const { id: jobId } of jobs) {
        const { rows } = await this.knex.raw<{ rows: { count: string }[] }>(
          'select evidence_fold(?, ?, ?) as count',
          [jobId, before, person],
        );
        const count = Number(rows[0]?.count ?? 0);
        if (count > 0) folded.push({ jobId, count });
      }
      return folded;
    });
  }

  /** What was folded so far. */
  folded(): Promise<readonly Folded[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: (Omit<Folded, 'count'> & { count: string })[] }>(
        `select job_id as "jobId", sum(last_place - first_place + 1) as count, max(at) as at,
           (array_agg(person order by at desc))[1] as person
         from evidence_gap group by job_id order by max(at)`,
      );
      return rows.map((row) => ({ ...row, count: Number(row.count) }));
    });
  }

  /** All that a stage can depend on, however often a device was asked. */
  latest(jobId: string): Promise<Latest> {
    return asking(() => this.known.of(jobId));
  }

  /** What was said last of each place where an address or a name of an interface is written. */
  writtenTicks(jobId: string): Promise<readonly WrittenTick[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly WrittenTick[] }>(
        `select distinct on (interface_id, facts->>'place')
           interface_id as interface, person, facts->>'place' as place, facts->>'whose' as whose,
           facts->>'value' as value, facts->>'is' as is,
           (extract(epoch from at) * 1000)::bigint::float8 as at
         from evidence where job_id = :jobId and kind = 'said-written'
         order by interface_id, facts->>'place', evidence.place desc`,
        { jobId },
      );
      return rows;
    });
  }

  /** What was seen of one interface, newest first. */
  of(jobId: string, interfaceId: string, most: number): Promise<readonly CountedEvidence[]> {
    return asking(async () => {
      const rows = await EvidenceRow.query(this.knex)
        .select(COLUMNS.map((column) => `evidence.${column}`))
        .select(raw('evidence_count.count'), raw('evidence_count.until'))
        .leftJoin('evidence_count', 'evidence_count.evidence_id', 'evidence.id')
        .where({ 'evidence.job_id': jobId, 'evidence.interface_id': interfaceId })
        .orderBy([
          { column: 'evidence.at', order: 'desc' },
          { column: 'evidence.id', order: 'desc' },
        ])
        .limit(most)
        .castTo<CountedRow[]>();
      return rows.map((row) => {
        const { count, until } = row;
        const again =
          count === null || until === null ? undefined : { count, until: until.getTime() };
        return { ...toEvidence(row), again };
      });
    });
  }
}
