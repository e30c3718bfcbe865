import type { Knex } from 'knex';
import type { FoundMistake, Mistake, MistakeWish, Unrehearsed } from '@ipsonomo/core/api';
import { asking } from './asking';
import { FoundMistakeRow, RehearsalRow } from './models';

export interface NewRehearsalRecord {
  readonly jobId: string;
  readonly of: { readonly id: string; readonly name: string; readonly revision: number };
  readonly seed: number;
  readonly wish: MistakeWish;
  readonly mistakes: readonly Mistake[];
  readonly unrehearsed: readonly Unrehearsed[];
}

/** A list given as such would become an array of PostgreSQL. */
const asJson = <T>(value: T): T => JSON.stringify(value) as T;

/** Jobs that rehearse the plan of another, and what was found in them. */
export class RehearsalStore {
  constructor(private readonly knex: Knex) {}

  add({ jobId, of, mistakes, unrehearsed, wish, seed }: NewRehearsalRecord): Promise<void> {
    return asking(async () => {
      await RehearsalRow.query(this.knex).insert({
        ...{ job_id: jobId, of_job: of.id, of_name: of.name, of_revision: of.revision, seed },
        ...{ wish: wish, mistakes: asJson(mistakes) },
        unrehearsed: asJson(unrehearsed),
      });
    });
  }

  ids(): Promise<readonly string[]> {
    return asking(async () =>
      (await RehearsalRow.query(this.knex).select('job_id')).map((row) => row.job_id),
    );
  }

  find(jobId: string): Promise<RehearsalRow | undefined> {
    return asking(() => RehearsalRow.query(this.knex).findById(jobId));
  }

  found(jobId: string): Promise<readonly FoundMistake[]> {
    return asking(async () =>
      (await FoundMistakeRow.query(this.knex).where('job_id', jobId).orderBy('at')).map((row) => ({
        ...{ id: row.mistake, kind: row.kind, interfaceId: row.interface_id },
        ...{ person: row.person, at: row.at.getTime() },
      })),
    );
  }

  /** Whoever found it first has found it. */
  addFound(jobId: string, { id, kind, interfaceId }: Mistake, person: string): Promise<void> {
    return asking(async () => {
      await FoundMistakeRow.query(this.knex)
        .insert({ job_id: jobId, mistake: id, kind, interface_id: interfaceId, person })
        .onConflict(['job_id', 'mistake'])
        .ignore();
    });
  }

  countWrong(jobId: string): Promise<void> {
    return asking(async () => {
      await RehearsalRow.query(this.knex).findById(jobId).increment('wrong_claims', 1);
    });
  }

  end(jobId: string): Promise<void> {
    return asking(async () => {
      await RehearsalRow.query(this.knex)
        .where({ job_id: jobId })
        .whereNull('ended_at')
        .patch({ ended_at: new Date() });
    });
  }
}
