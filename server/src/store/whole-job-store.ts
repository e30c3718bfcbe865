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
  ['hand_over', 'id'],
] as const;

export type JobTable = (typeof JOB_TABLES)[number][0];

/** Rows that are read at once. */
const PIECE = 2000;

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
