import type { Knex } from 'knex';
import { UniqueViolationError } from 'objection';
import type { Role } from '@ipsonomo/core/api';
import { asking } from './asking';
import { AccountRow, SendGrantRow } from './models';
import { Refusal } from './refusal';

type AccountValues = Pick<
  AccountRow,
  'kind' | 'name' | 'role' | 'password' | 'token' | 'made_by' | 'ends_at'
>;

/** Who may send on which wire until when. */
export type GrantValues = Pick<
  SendGrantRow,
  'account_id' | 'job_id' | 'wire' | 'until' | 'made_by'
>;

/** Accounts, and who may send on which wire. */
export class PeopleStore {
  constructor(private readonly knex: Knex) {}

  /** Those that were not taken away. */
  accounts(): Promise<readonly AccountRow[]> {
    return asking(() => AccountRow.query(this.knex).whereNull('ended_at').orderBy('made_at'));
  }

  grants(): Promise<readonly SendGrantRow[]> {
    return asking(() => SendGrantRow.query(this.knex).where('until', '>', this.knex.fn.now()));
  }

  /** Refuses with `people.nameTaken`. */
  add(values: AccountValues): Promise<AccountRow> {
    return asking(() =>
      ownName(values.name, async () => AccountRow.query(this.knex).insertAndFetch(values)),
    );
  }

  /** Refuses with `people.nameTaken`. */
  async change(id: string, values: Partial<Pick<AccountValues, 'name' | 'password'>>) {
    await asking(() =>
      ownName(values.name ?? '', async () =>
        AccountRow.query(this.knex).findById(id).patch(values),
      ),
    );
  }

  /**
   * Changes what somebody may do, or takes their account away; never the last one that keeps the installation, also where
   * two of them do it to each other at once. Refuses with `people.lastKeeper`.
   */
  async changeRole(id: string, role: Role | 'ended'): Promise<void> {
    await asking(() =>
      this.knex.transaction(async (trx) => {
        const keepers = await AccountRow.query(trx)
          .where({ kind: 'person', role: 'keep' })
          .whereNull('ended_at')
          .orderBy('id')
          .forUpdate();
        const isLast = keepers.length === 1 && keepers[0]?.id === id;
        if (isLast && role !== 'keep') throw Refusal.of('people.lastKeeper', '');
        const change =
          role === 'ended' ? { ended_at: new Date(), password: null, token: null } : { role };
        await AccountRow.query(trx).findById(id).patch(change);
      }),
    );
  }

  async grant(values: GrantValues): Promise<void> {
    await asking(() =>
      SendGrantRow.query(this.knex)
        .insert(values)
        .onConflict(['account_id', 'job_id', 'wire'])
        .merge(['until', 'made_by']),
    );
  }

  async takeGrants(account_id: string, job_id: string): Promise<void> {
    await asking(() => SendGrantRow.query(this.knex).where({ account_id, job_id }).delete());
  }
}

async function ownName<T>(name: string, act: () => Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof UniqueViolationError)) throw error;
    throw Refusal.of('people.nameTaken', '', { name });
  }
}
