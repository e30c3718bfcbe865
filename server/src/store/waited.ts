import type { Knex } from 'knex';
import type { Waited } from '../common/waited';

interface WaitedRow {
  readonly revision: number | null;
}

/**
 * Notes that an act is done, in the transaction that does it.
 * @returns undefined the first time; later, which revision it made then (null for none)
 */
export async function doneBefore(
  trx: Knex,
  jobId: string,
  waited: Waited,
): Promise<WaitedRow | undefined> {
  const made = await trx('waited_act')
    .insert({
      ...{ id: waited.id, job_id: jobId, act: waited.act, place: waited.place },
      ...{ done_at: new Date(waited.doneAt), clock_is_off: waited.clockIsOff },
    })
    .onConflict(['job_id', 'id'])
    .ignore()
    .returning('id');
  if (made.length > 0) return undefined;
  return trx('waited_act')
    .select<WaitedRow[]>('revision')
    .where({ job_id: jobId, id: waited.id })
    .first();
}

/** Which revision it made. */
export const noteRevision = (
  trx: Knex,
  jobId: string,
  { id }: Waited,
  revision: number,
): Promise<number> => trx('waited_act').where({ job_id: jobId, id }).update({ revision });
