import { randomBytes, randomInt } from 'node:crypto';
import type { BrowserView, KeysView, Role } from '@ipsonomo/core/api';
import { visibleText } from '@ipsonomo/core/names';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { AccountRow, BrowserRow, InvitationRow } from '../store/models';
import { digestOf, type People } from './people';
import { Tries } from './tries';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** A key stands on a terminal and on a phone's screen: it is good for a shift or two. */
const KEY_HOLDS = 24 * HOUR;
/** A browser that nobody used for so long has to be let in anew. */
const BROWSER_HOLDS = 90 * DAY;
/** Who was there just now is written down so often. */
const NOTE_SEEN = 60_000;
const MOST_BROWSERS = 500;
const MOST_INVITATIONS = 100;
const MOST_TEXT = 120;

/** Crockford's base 32: no letter is taken for a digit, and none is missed when it is read aloud. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** 20 letters of 5 bits: 100 bits. */
const KEY_LENGTH = 20;

/** A browser that was let in, and whose it is. */
export interface LetIn {
  readonly id: string;
  readonly account: AccountRow;
}

/** What a key is for: an account that is there, or one that it makes. */
export interface KeyWish {
  /** Who gives it out, in words. */
  readonly by: string;
  readonly role: Role;
  readonly account?: string;
  /** It lets in all who come with it, until it ends. */
  readonly isForMany?: boolean;
}

/** What whoever comes in says of themselves. */
export interface Newcomer {
  readonly key: string;
  /** Empty where they say it later. */
  readonly name: string;
  readonly password: string | undefined;
  /** What the browser says it is. */
  readonly device: string;
}

const newKey = (): string =>
  Array.from({ length: KEY_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');

/** A key as it is compared: read aloud, typed in small letters, with spaces and dashes, O for 0 and I or L for 1. */
const plainKey = (text: string): string =>
  text.toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1');

const nameOf = (digest: Buffer): string => digest.toString('hex');

function fill<R extends { readonly digest: Buffer }>(known: Map<string, R>, rows: readonly R[]) {
  known.clear();
  for (const row of rows) known.set(nameOf(row.digest), row);
}
const short = (text: string): string => visibleText(text).trim().slice(0, MOST_TEXT);

/**
 * R-DOOR. Who may come in. A key makes an account, or opens one that is there, and is used up by that; each browser then has a
 * cookie of its own. All of them are in memory, and read anew where another server changed them, so that nobody is asked,
 * also while the database is away: whoever was let in can always fall silent.
 */
export class Door {
  private readonly browsers = new Map<string, BrowserRow>();
  private readonly invitations = new Map<string, InvitationRow>();
  private readonly tries: Tries;

  /** @param shown told which browser was taken back: what it has open is closed */
  constructor(
    private readonly store: Store,
    private readonly people: People,
    private readonly clock: () => number,
    private readonly takenBack: (id: string) => void,
  ) {
    this.tries = new Tries(clock);
  }

  /** Reads who was let in before; what has ended is forgotten. */
  async open(): Promise<void> {
    await this.read();
    await this.forget();
  }

  /** Another server let somebody in, or shut somebody out: what those have open here is closed. */
  async read(): Promise<void> {
    const [browsers, invitations] = await Promise.all([
      this.store.door.browsers(),
      this.store.door.invitations(),
    ]);
    const before = [...this.browsers.values()];
    fill(this.browsers, browsers);
    fill(this.invitations, invitations);
    const left = new Set(browsers.map(({ id }) => id));
    for (const { id } of before) if (!left.has(id)) this.takenBack(id);
  }

  /** Makes a key. */
  async invite(wish: KeyWish): Promise<{ readonly key: string; readonly endsAt: number }> {
    await this.forget();
    if (this.invitations.size >= MOST_INVITATIONS)
      throw Refusal.of('door.tooMany', '', { most: MOST_INVITATIONS });
    if (wish.account !== undefined && !this.people.find(wish.account))
      throw Refusal.of('thing.unknown', 'account');
    const key = newKey();
    const now = this.clock();
    const row = await this.store.door.addInvitation({
      ...{ digest: digestOf(key), made_by: short(wish.by) },
      ...{ made_at: new Date(now), ends_at: new Date(now + KEY_HOLDS) },
      ...{ role: wish.role, account_id: wish.account ?? null, is_once: wish.isForMany !== true },
    });
    this.invitations.set(nameOf(row.digest), row);
    return { key, endsAt: now + KEY_HOLDS };
  }

  /**
   * Lets a browser in by a key. A password that comes with it is the account's from then on.
   * @returns the secret of its cookie
   */
  async enter({ key, name, password, device }: Newcomer): Promise<string> {
    const digest = nameOf(digestOf(plainKey(key)));
    const invitation = this.invitations.get(digest);
    if (!invitation || invitation.ends_at.getTime() < this.clock())
      throw Refusal.of('door.wrongKey', 'key');
    this.needRoom();
    if (invitation.is_once) await this.use(digest, invitation);
    try {
      const account = await this.accountFor(invitation, name, password);
      return await this.letIn(account, device);
    } catch (error) {
      if (invitation.is_once) await this.putBack(digest, invitation);
      throw error;
    }
  }

  /** Of two who come with one key at once, through whichever server, only the first has it. */
  private async use(digest: string, invitation: InvitationRow): Promise<void> {
    this.invitations.delete(digest);
    const wasThere = await this.store.door.remove(invitation.id).catch((error: unknown) => {
      this.invitations.set(digest, invitation);
      throw error;
    });
    if (!wasThere) throw Refusal.of('door.wrongKey', 'key');
  }

  /** Whoever could not come in with it may try again. */
  private async putBack(digest: string, invitation: InvitationRow): Promise<void> {
    await this.store.door.addInvitation(invitation);
    this.invitations.set(digest, invitation);
  }

  private async accountFor(
    { account_id, role, made_by: by }: InvitationRow,
    name: string,
    password: string | undefined,
  ): Promise<string> {
    if (account_id === null) return (await this.people.add({ name, role, by, password })).id;
    if (!this.people.find(account_id)) throw Refusal.of('door.wrongKey', 'key');
    if (password !== undefined) await this.people.replacePassword(account_id, password);
    return account_id;
  }

  /**
   * Lets a browser in by name and password. Whoever tries and tries is made to wait, but nobody can keep the account's own
   * person out that way: an address from which they came in before has tries of its own.
   * @param from the address that asks
   */
  async signIn(name: string, password: string, device: string, from: string): Promise<string> {
    this.needRoom();
    this.tries.need(name, from);
    const account = await this.people.signIn(name, password);
    if (!account) {
      this.tries.failed(name, from);
      throw Refusal.of('people.wrong', '');
    }
    this.tries.succeeded(name, from);
    return this.letIn(account.id, device);
  }

  private needRoom(): void {
    if (this.browsers.size >= MOST_BROWSERS)
      throw Refusal.of('door.tooMany', '', { most: MOST_BROWSERS });
  }

  private async letIn(account_id: string, device: string): Promise<string> {
    const secret = randomBytes(32).toString('base64url');
    const now = new Date(this.clock());
    const row = await this.store.door.addBrowser({
      ...{ digest: digestOf(secret), account_id, device: short(device) },
      ...{ let_in_at: now, seen_at: now },
    });
    this.browsers.set(nameOf(row.digest), row);
    return secret;
  }

  /** Whose cookie this is. */
  find(secret: string | undefined): LetIn | undefined {
    const row = secret === undefined ? undefined : this.browsers.get(nameOf(digestOf(secret)));
    const isLate = row && row.seen_at.getTime() + BROWSER_HOLDS < this.clock();
    const account = row && !isLate ? this.people.find(row.account_id) : undefined;
    return row && account ? { id: row.id, account } : undefined;
  }

  /** Writes down that a browser was here. Nobody waits for it. */
  seen(id: string): void {
    const row = this.byId(id);
    const now = this.clock();
    if (!row || now - row.seen_at.getTime() <= NOTE_SEEN) return;
    row.seen_at = new Date(now);
    // Without a database it stands in memory, and is written the next time.
    void this.store.door.changeBrowser(id, { seen_at: row.seen_at }).catch(() => undefined);
  }

  /** Ends every browser of an account but one. */
  async signOut(account: string, but?: string): Promise<void> {
    const own = [...this.browsers.values()].filter(
      ({ id, account_id }) => account_id === account && id !== but,
    );
    for (const { id } of own) await this.takeBack(id);
  }

  /** @param own the browser that asks */
  view(own: string | undefined): KeysView {
    const now = this.clock();
    return {
      browsers: [...this.browsers.values()].map((row): BrowserView => ({
        ...{ id: row.id, account: row.account_id, device: row.device },
        person: this.people.find(row.account_id)?.name ?? '',
        ...{ letInAt: row.let_in_at.getTime(), seenAt: row.seen_at.getTime() },
        isOwn: row.id === own,
      })),
      invitations: [...this.invitations.values()]
        .filter((row) => row.ends_at.getTime() > now)
        .map((row) => ({
          ...{ id: row.id, by: row.made_by, role: row.role },
          person: row.account_id === null ? null : (this.people.find(row.account_id)?.name ?? ''),
          ...{ madeAt: row.made_at.getTime(), endsAt: row.ends_at.getTime() },
        })),
    };
  }

  /** Takes a browser's cookie, or a key, back. */
  async takeBack(id: string): Promise<void> {
    const of = (rows: ReadonlyMap<string, { readonly id: string }>) =>
      [...rows].find(([, row]) => row.id === id)?.[0];
    const [browser, invitation] = [of(this.browsers), of(this.invitations)];
    if (browser === undefined && invitation === undefined) throw Refusal.of('thing.unknown', 'key');
    await this.store.door.remove(id);
    this.browsers.delete(browser ?? '');
    this.invitations.delete(invitation ?? '');
    if (browser !== undefined) this.takenBack(id);
  }

  private byId(id: string): BrowserRow | undefined {
    return [...this.browsers.values()].find((row) => row.id === id);
  }

  private async forget(): Promise<void> {
    const now = this.clock();
    const ended = [
      ...[...this.invitations.values()].filter((row) => row.ends_at.getTime() < now),
      ...[...this.browsers.values()].filter((row) => row.seen_at.getTime() + BROWSER_HOLDS < now),
    ];
    for (const { id, digest } of ended) {
      await this.store.door.remove(id);
      this.invitations.delete(nameOf(digest));
      this.browsers.delete(nameOf(digest));
    }
  }
}
