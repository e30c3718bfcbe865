import type { Knex } from 'knex';
import { asking } from './asking';

export interface Taker {
  readonly person: string;
  /** Undefined of the machine's own person, who is known by the name. */
  readonly account: string | undefined;
}

export interface TakenCall {
  readonly interfaceId: string;
  readonly person: string;
  readonly accountId: string | null;
  readonly since: Date;
  readonly until: Date;
  readonly takenFrom: string | null;
  readonly takenFromAccount: string | null;
  readonly word: string | null;
}

export interface Taking {
  readonly jobId: string;
  readonly interfaceId: string;
  readonly taker: Taker;
  readonly now: Date;
  readonly until: Date;
  /** To whoever is at it; undefined where it is taken only if nobody is. */
  readonly word: string | undefined;
}

const COLUMNS = `interface_id as "interfaceId", person, account_id as "accountId", since, until,
  taken_from as "takenFrom", taken_from_account as "takenFromAccount", word`;

/** Who is at which device: one at a time, decided by the database, whoever asks first and through whichever server. */
export class TakenCallStore {
  constructor(private readonly knex: Knex) {}

  /** @returns how it stands then, and whether it stood otherwise before; whoever else is at it stays unless there is a word */
  take(taking: Taking): Promise<{ readonly call: TakenCall; readonly isNew: boolean }> {
    return asking(() =>
      this.knex.transaction(async (trx) => {
        const { jobId, interfaceId, taker, now, until, word } = taking;
        // Two who come at once come one after the other, also where there is no row yet.
        await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 20261201))', [
          `${jobId} ${interfaceId}`,
        ]);
        const before = await this.find(trx, jobId, interfaceId);
        const stands = before !== undefined && before.until > now ? before : undefined;
        const isOwn = stands !== undefined && isOf(stands, taker);
        if (stands && !isOwn && word === undefined) return { call: stands, isNew: false };
        const from = stands && !isOwn ? stands : undefined;
        const row = {
          ...{ job_id: jobId, interface_id: interfaceId, person: taker.person },
          ...{ account_id: taker.account ?? null, since: isOwn ? stands.since : now, until },
          taken_from: from?.person ?? (isOwn ? stands.takenFrom : null),
          taken_from_account: from?.accountId ?? (isOwn ? stands.takenFromAccount : null),
          word: from ? word : isOwn ? stands.word : null,
        };
        await trx('taken_call').insert(row).onConflict(['job_id', 'interface_id']).merge();
        const call = await this.find(trx, jobId, interfaceId);
        return { call: call as TakenCall, isNew: !isOwn };
      }),
    );
  }

  /** Whoever is at it leaves; @returns whether they were. */
  leave(jobId: string, interfaceId: string, taker: Taker): Promise<boolean> {
    return asking(async () => {
      const found = await this.find(this.knex, jobId, interfaceId);
      if (!found || !isOf(found, taker)) return false;
      await this.knex('taken_call').where({ job_id: jobId, interface_id: interfaceId }).delete();
      return true;
    });
  }

  all(jobId: string, now: Date): Promise<readonly TakenCall[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly TakenCall[] }>(
        `select ${COLUMNS} from taken_call where job_id = ? and until > ? order by interface_id`,
        [jobId, now],
      );
      return rows;
    });
  }

  private async find(
    knex: Knex,
    jobId: string,
    interfaceId: string,
  ): Promise<TakenCall | undefined> {
    const { rows } = await knex.raw<{ rows: readonly TakenCall[] }>(
      `select ${COLUMNS} from taken_call where job_id = ? and interface_id = ?`,
      [jobId, interfaceId],
    );
    return rows[0];
  }
}

/** By their account, whatever they are called; by the name where there is none. */
export const isOf = (
  { person, accountId }: Pick<TakenCall, 'person' | 'accountId'>,
  taker: Taker,
): boolean => (taker.account === undefined ? person === taker.person : accountId === taker.account);
