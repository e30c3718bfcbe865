import type { Knex } from 'knex';
import { asking } from './asking';
import { BrowserRow, InvitationRow } from './models';

/** Keys that were given out, and the browsers that came in with one. */
export class DoorStore {
  constructor(private readonly knex: Knex) {}

  browsers(): Promise<readonly BrowserRow[]> {
    return asking(() => BrowserRow.query(this.knex).orderBy('let_in_at'));
  }

  invitations(): Promise<readonly InvitationRow[]> {
    return asking(() => InvitationRow.query(this.knex).orderBy('made_at'));
  }

  addBrowser(row: Omit<BrowserValues, 'id'>): Promise<BrowserRow> {
    return asking(() => BrowserRow.query(this.knex).insertAndFetch(row));
  }

  addInvitation(row: Omit<InvitationValues, 'id'>): Promise<InvitationRow> {
    return asking(() => InvitationRow.query(this.knex).insertAndFetch(row));
  }

  async changeBrowser(id: string, change: Pick<BrowserValues, 'seen_at'>) {
    await asking(() => BrowserRow.query(this.knex).findById(id).patch(change));
  }

  /** Takes a browser or an invitation back, whichever has this id. @returns whether it was there */
  remove(id: string): Promise<boolean> {
    return asking(async () => {
      const browsers = await BrowserRow.query(this.knex).deleteById(id);
      const invitations = await InvitationRow.query(this.knex).deleteById(id);
      return browsers + invitations > 0;
    });
  }
}

type BrowserValues = Pick<
  BrowserRow,
  'id' | 'digest' | 'account_id' | 'device' | 'let_in_at' | 'seen_at'
>;
type InvitationValues = Pick<
  InvitationRow,
  'id' | 'digest' | 'made_by' | 'made_at' | 'ends_at' | 'role' | 'account_id' | 'is_once'
>;
