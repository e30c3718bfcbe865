import type { Knex } from 'knex';
import { asking } from './asking';

/** Photos of devices, by the SHA-256 of their bytes. */
export class PhotoStore {
  constructor(private readonly knex: Knex) {}

  async add(jobId: string, id: string, bytes: Buffer): Promise<void> {
    await asking(() =>
      this.knex('photo').insert({ job_id: jobId, id, bytes }).onConflict().ignore(),
    );
  }

  find(jobId: string, id: string): Promise<Buffer | undefined> {
    return asking(async () => {
      const row = await this.knex('photo')
        .select<{ bytes: Buffer }[]>('bytes')
        .where({ job_id: jobId, id })
        .first();
      return row?.bytes;
    });
  }

  ids(jobId: string): Promise<readonly string[]> {
    return asking(async () => {
      const rows = await this.knex('photo').select<{ id: string }[]>('id').where('job_id', jobId);
      return rows.map(({ id }) => id);
    });
  }

  /** Bytes of all of a job together. */
  together(jobId: string): Promise<number> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly { readonly sum: number }[] }>(
        'select coalesce(sum(length(bytes)), 0)::float8 as sum from photo where job_id = ?',
        [jobId],
      );
      return rows[0]?.sum ?? 0;
    });
  }
}
