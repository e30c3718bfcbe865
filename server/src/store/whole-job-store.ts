import type { Knex } from 'knex';
import { asking } from './asking';

/** How far a job has come: its last revision, its last piece of evidence. */
export interface JobMark {
  readonly revision: number;
  readonly place: string;
}

/** The tables that a job has rows in, each with what tells its rows apart; the plan itself has a file of its own. */
export const JOB_TABLES = [
  ['revision', 'number'],
  ['run', 'id'],
  ['evidence', 'id'],
  ['evidence_count', 'evidence_id'],
  ['evidence_gap', 'first_place'],
  ['proof', 'id'],
  ['photo', 'id'],
  ['hand_over', 'id'],
] as const;

export type JobTable = (typeof JOB_TABLES)[number][0];

/** Rows that are read at once. */
const PIECE = 2000;

/** A piece of evidence and its link, or so many that were folded. */
export interface SealedRow {
  readonly text: string | null;
  readonly folded: number | null;
  readonly chain: string;
}

export interface RevisionLineRow {
  readonly number: number;
  readonly at: string;
  readonly person: string;
  readonly what: string;
  readonly edits: string;
}

interface Row {
  readonly row: string;
  readonly key: string;
}

/** Everything of a job on its way out, and its end. */
export class WholeJobStore {
  constructor(private readonly knex: Knex) {}

  mark(jobId: string): Promise<JobMark> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly JobMark[] }>(
        `select coalesce((select max(number) from revision where job_id = :jobId), 0) as revision,
           coalesce((select max(place) from evidence where job_id = :jobId), 0)::text as place`,
        { jobId },
      );
      return rows[0] ?? { revision: 0, place: '0' };
    });
  }

  /** Every row of a table that is the job's, as JSON: each piece begins where the one before ended. */
  async *rows(jobId: string, [table, key]: (typeof JOB_TABLES)[number]): AsyncGenerator<string> {
    let last: string | undefined;
    for (;;) {
      const beyond = last === undefined ? '' : 'and ?? > ?';
      const from: readonly string[] = last === undefined ? [] : [key, last];
      const piece = await asking(async () => {
        const { rows } = await this.knex.raw<{ rows: readonly Row[] }>(
          `select to_jsonb(one)::text as row, ??::text as key from ?? as one
           where job_id = ? ${beyond} order by one.?? limit ?`,
          [key, table, jobId, ...from, key, PIECE],
        );
        return rows;
      });
      for (const { row } of piece) yield row;
      last = piece.at(-1)?.key;
      if (piece.length < PIECE) return;
    }
  }

  /** All evidence of a job as it was sealed, in its order; what was folded is told as a count. */
  sealed(jobId: string): Promise<readonly SealedRow[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly SealedRow[] }>(
        `select text, folded::int as folded, encode(chain, 'hex') as chain from (
           select place, jsonb_build_array(
             one.job_id, one.place, one.interface_id, one.run_id, one.sequence, one.kind,
             extract(epoch from one.at), one.mac, one.address, one.source, one.person, one.facts,
             encode(one.bytes, 'hex'))::text as text, null as folded, chain
           from evidence as one where job_id = :jobId
           union all
           select first_place, null, last_place - first_place + 1, chain
           from evidence_gap where job_id = :jobId
         ) as link order by place`,
        { jobId },
      );
      return rows;
    });
  }

  /** Every revision as one line, with the digest of its edits as the database writes them. */
  revisionLines(jobId: string): Promise<readonly RevisionLineRow[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly RevisionLineRow[] }>(
        `select number, person, what,
           to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at,
           encode(sha256(convert_to(edits::text, 'UTF8')), 'hex') as edits
         from revision where job_id = :jobId order by number`,
        { jobId },
      );
      return rows;
    });
  }

  /** All of it was written to a file, as it was at this mark. */
  written(jobId: string, { revision, place }: JobMark): Promise<void> {
    return asking(async () => {
      await this.knex('job_written')
        .insert({ job_id: jobId, revision, place, at: new Date() })
        .onConflict('job_id')
        .merge();
    });
  }

  isWritten(jobId: string): Promise<boolean> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly { readonly is: boolean }[] }>(
        'select job_is_written(?) as is',
        [jobId],
      );
      return rows[0]?.is === true;
    });
  }

  delete(jobId: string): Promise<void> {
    return asking(async () => {
      await this.knex.raw('select job_delete(?)', [jobId]);
    });
  }
}
