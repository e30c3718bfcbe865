import { createHash, randomBytes } from 'node:crypto';
import type { AccountView, MeView, Role, SendGrantView } from '@ipsonomo/core/api';
import { visibleText } from '@ipsonomo/core/names';
import type { AccountRow } from '../store/models';
import type { GrantValues } from '../store/people-store';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { NOBODY } from '../common/nobody';
import { checkPassword, hashOf, isPassword } from './passwords';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Who chooses an adapter may send on it for a long shift; whoever else is let does for as long as is said. */
export const OWN_GRANT = 12 * HOUR;
const MOST_ACCOUNTS = 1000;
const MOST_NAME = 80;
/** So that a token is known for one where it is found. */
const TOKEN_MARK = 'ips_';

export const digestOf = (secret: string): Buffer => createHash('sha256').update(secret).digest();
const nameText = (name: string): string => visibleText(name).trim().slice(0, MOST_NAME);

/**
 * R-PEOPLE. Accounts of people and programs: what each may do, and who may send on which wire until when. They are in
 * memory as a whole, so that whoever was let in can fall silent while the database is away; what another server changes of
 * them is read anew.
 */
export class People {
  private readonly accounts = new Map<string, AccountRow>();
  private readonly programs = new Map<string, AccountRow>();
  private grants: readonly GrantValues[] = [];

  constructor(
    private readonly store: Store,
    private readonly clock: () => number,
  ) {}

  async open(): Promise<void> {
    const [rows, grants] = await Promise.all([
      this.store.people.accounts(),
      this.store.people.grants(),
    ]);
    this.accounts.clear();
    this.programs.clear();
    for (const row of rows) this.learn(row);
    this.grants = grants;
  }

  /** Nobody keeps this installation yet. */
  get isNew(): boolean {
    return ![...this.accounts.values()].some(
      ({ kind, role }) => kind === 'person' && role === 'keep',
    );
  }

  find(id: string): AccountRow | undefined {
    const row = this.accounts.get(id);
    return row && (row.ends_at === null || row.ends_at.getTime() > this.clock()) ? row : undefined;
  }

  /** Whose token this is. */
  ofToken(token: string): AccountRow | undefined {
    const row = this.programs.get(digestOf(token).toString('hex'));
    return row && this.find(row.id);
  }

  /** @param password undefined where there is none: the browser that came in is the only way */
  async add(of: {
    readonly name: string;
    readonly role: Role;
    readonly by: string;
    readonly password?: string | undefined;
  }): Promise<AccountRow> {
    const name = nameText(of.name);
    if (of.password !== undefined) checkPassword(of.password, name);
    const password = of.password === undefined ? null : await hashOf(of.password);
    return this.added({
      ...{ kind: 'person', name, role: of.role, password, token: null },
      ...{ made_by: of.by, ends_at: null },
    });
  }

  /** @returns the token, told this once */
  async addProgram(of: {
    readonly name: string;
    readonly role: Role;
    readonly days: number;
    readonly by: string;
  }): Promise<{ readonly id: string; readonly token: string; readonly endsAt: number }> {
    const token = TOKEN_MARK + randomBytes(32).toString('base64url');
    const endsAt = this.clock() + of.days * DAY;
    const { id } = await this.added({
      ...{ kind: 'program', name: nameText(of.name), role: of.role, password: null },
      ...{ token: digestOf(token), made_by: of.by, ends_at: new Date(endsAt) },
    });
    return { id, token, endsAt };
  }

  private async added(values: Parameters<Store['people']['add']>[0]): Promise<AccountRow> {
    if (this.accounts.size >= MOST_ACCOUNTS)
      throw Refusal.of('door.tooMany', '', { most: MOST_ACCOUNTS });
    const row = await this.store.people.add(values);
    this.learn(row);
    return row;
  }

  /** Whose name and password these are; undefined where they do not belong together. */
  async signIn(name: string, password: string): Promise<AccountRow | undefined> {
    const wanted = nameText(name).toLowerCase();
    const row = [...this.accounts.values()].find(
      (one) => one.kind === 'person' && one.name !== '' && one.name.toLowerCase() === wanted,
    );
    return (await isPassword(password, row?.password ?? undefined)) ? row : undefined;
  }

  /** Refuses with `people.nameTaken`. */
  async rename(id: string, name: string): Promise<void> {
    const row = this.needed(id);
    const wanted = nameText(name);
    if (wanted === '') throw Refusal.of('person.needed', '');
    if (wanted === row.name) return;
    await this.store.people.change(id, { name: wanted });
    row.name = wanted;
  }

  /**
   * Calls somebody who has no name yet as they say; where another has it already, with a number behind it. A name that
   * is there stays: it is changed by `rename` alone.
   */
  async nameFirst(id: string, name: string): Promise<void> {
    const row = this.accounts.get(id);
    if (!row || row.name !== '' || name === NOBODY) return;
    const taken = new Set([...this.accounts.values()].map((one) => one.name.toLowerCase()));
    let free = nameText(name);
    for (let more = 2; taken.has(free.toLowerCase()); more += 1)
      free = `${nameText(name)} (${more})`;
    // Two requests of one page come at once: the second finds the name of the first.
    row.name = free;
    await this.store.people.change(id, { name: free }).catch(() => (row.name = ''));
  }

  /** @param old needed where there is one */
  async setPassword(id: string, password: string, old: string | undefined): Promise<void> {
    const row = this.needed(id);
    if (row.password !== null && !(await isPassword(old ?? '', row.password)))
      throw Refusal.of('people.wrongOld', '');
    await this.replacePassword(id, password);
  }

  /** For whoever came with a key that is theirs. */
  async replacePassword(id: string, password: string): Promise<void> {
    const row = this.needed(id);
    checkPassword(password, row.name);
    const hashed = await hashOf(password);
    await this.store.people.change(id, { password: hashed });
    row.password = hashed;
  }

  /** Refuses with `people.lastKeeper`. */
  async changeRole(id: string, role: Role): Promise<void> {
    const row = this.needed(id);
    await this.store.people.changeRole(id, role);
    row.role = role;
  }

  /** Takes an account away; what it did stays, with its name. Refuses with `people.lastKeeper`. */
  async end(id: string): Promise<void> {
    const row = this.needed(id);
    await this.store.people.changeRole(id, 'ended');
    this.accounts.delete(id);
    if (row.token) this.programs.delete(row.token.toString('hex'));
    this.grants = this.grants.filter(({ account_id }) => account_id !== id);
  }

  /** Lets somebody send on the wire of a job until then. */
  async letSend(id: string, job: string, wire: string, until: number, by: string): Promise<void> {
    this.needed(id);
    const row = { account_id: id, job_id: job, wire, until: new Date(until), made_by: by };
    await this.store.people.grant(row);
    this.grants = [...this.grants.filter((one) => !isOf(one, id, job) || one.wire !== wire), row];
  }

  async endSending(id: string, job: string): Promise<void> {
    await this.store.people.takeGrants(id, job);
    this.grants = this.grants.filter((one) => !isOf(one, id, job));
  }

  maySend(id: string, job: string, wire: string): boolean {
    const now = this.clock();
    return this.grants.some(
      (one) => isOf(one, id, job) && one.wire === wire && one.until.getTime() > now,
    );
  }

  me(id: string): MeView {
    const { name, role, password } = this.needed(id);
    return { id, name, role, hasPassword: password !== null, grants: this.grantsOf(id) };
  }

  /** @param own the account that asks */
  views(own: string | undefined): readonly AccountView[] {
    return [...this.accounts.values()].map((row) => ({
      ...{ id: row.id, kind: row.kind, name: row.name, role: row.role },
      ...{ hasPassword: row.password !== null, madeBy: row.made_by },
      ...{ madeAt: row.made_at.getTime(), endsAt: row.ends_at?.getTime() ?? null },
      ...{ grants: this.grantsOf(row.id), isOwn: row.id === own },
    }));
  }

  private grantsOf(id: string): readonly SendGrantView[] {
    const now = this.clock();
    return this.grants
      .filter(({ account_id, until }) => account_id === id && until.getTime() > now)
      .map(({ job_id: job, wire, until, made_by: by }) => ({
        ...{ job, wire, until: until.getTime(), by },
      }));
  }

  private needed(id: string): AccountRow {
    const row = this.accounts.get(id);
    if (!row) throw Refusal.of('thing.unknown', 'account');
    return row;
  }

  private learn(row: AccountRow): void {
    this.accounts.set(row.id, row);
    if (row.token) this.programs.set(row.token.toString('hex'), row);
  }
}

const isOf = ({ account_id, job_id }: GrantValues, account: string, job: string): boolean =>
  account_id === account && job_id === job;
