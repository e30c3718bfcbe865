import { createHash, randomBytes, randomInt } from 'node:crypto';
import type { BrowserView, KeysView } from '@ipsonomo/core/api';
import { visibleText } from '@ipsonomo/core/names';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { BrowserRow, InvitationRow } from '../store/models';

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

/** A browser that was let in. */
export interface LetIn {
  readonly id: string;
  readonly person: string;
}

const newKey = (): string =>
  Array.from({ length: KEY_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');

/** A key as it is compared: read aloud, typed in small letters, with spaces and dashes, O for 0 and I or L for 1. */
const plainKey = (text: string): string =>
  text.toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1');

const digestOf = (secret: string): Buffer => createHash('sha256').update(secret).digest();
const nameOf = (digest: Buffer): string => digest.toString('hex');
const short = (text: string): string => visibleText(text).trim().slice(0, MOST_TEXT);

/**
 * R-DOOR. Who may come in. A key lets any number of browsers in until it ends or is taken back; each then has a cookie of its
 * own. This server is the only one that works with its database, so it knows all of them without asking, also while
 * the database is away: whoever was let in can always fall silent.
 */
export class Door {
  private readonly browsers = new Map<string, BrowserRow>();
  private readonly invitations = new Map<string, InvitationRow>();

  /** @param shown told which browser was taken back: what it has open is closed */
  constructor(
    private readonly store: Store,
    private readonly clock: () => number,
    private readonly takenBack: (id: string) => void,
  ) {}

  /** Reads who was let in before; what has ended is forgotten. */
  async open(): Promise<void> {
    for (const row of await this.store.door.browsers()) this.browsers.set(nameOf(row.digest), row);
    for (const row of await this.store.door.invitations())
      this.invitations.set(nameOf(row.digest), row);
    await this.forget();
  }

  /** Makes a key. @param by who gives it out, in words */
  async invite(by: string): Promise<{ readonly key: string; readonly endsAt: number }> {
    await this.forget();
    if (this.invitations.size >= MOST_INVITATIONS)
      throw Refusal.of('door.tooMany', '', { most: MOST_INVITATIONS });
    const key = newKey();
    const now = this.clock();
    const row = await this.store.door.addInvitation({
      ...{ digest: digestOf(key), made_by: short(by) },
      ...{ made_at: new Date(now), ends_at: new Date(now + KEY_HOLDS) },
    });
    this.invitations.set(nameOf(row.digest), row);
    return { key, endsAt: now + KEY_HOLDS };
  }

  /**
   * Lets a browser in. @param device what it says it is
   * @returns the secret of its cookie
   */
  async enter(key: string, device: string): Promise<string> {
    const invitation = this.invitations.get(nameOf(digestOf(plainKey(key))));
    const now = this.clock();
    if (!invitation || invitation.ends_at.getTime() < now) throw Refusal.of('door.wrongKey', 'key');
    if (this.browsers.size >= MOST_BROWSERS)
      throw Refusal.of('door.tooMany', '', { most: MOST_BROWSERS });
    const secret = randomBytes(32).toString('base64url');
    const row = await this.store.door.addBrowser({
      ...{ digest: digestOf(secret), person: '', device: short(device) },
      ...{ let_in_at: new Date(now), seen_at: new Date(now) },
    });
    this.browsers.set(nameOf(row.digest), row);
    return secret;
  }

  /** Whose cookie this is. */
  find(secret: string | undefined): LetIn | undefined {
    const row = secret === undefined ? undefined : this.browsers.get(nameOf(digestOf(secret)));
    const isLate = row && row.seen_at.getTime() + BROWSER_HOLDS < this.clock();
    return row && !isLate ? { id: row.id, person: row.person } : undefined;
  }

  /** Writes down that a browser was here, and what its person is called. Nobody waits for it. */
  seen(id: string, person: string): void {
    const row = this.byId(id);
    const now = this.clock();
    const isNew = row && (row.person !== person || now - row.seen_at.getTime() > NOTE_SEEN);
    if (!isNew) return;
    row.person = person;
    row.seen_at = new Date(now);
    const change = { person, seen_at: row.seen_at };
    // Without a database it stands in memory, and is written the next time.
    void this.store.door.changeBrowser(id, change).catch(() => undefined);
  }

  /** @param own the browser that asks */
  view(own: string | undefined): KeysView {
    const now = this.clock();
    return {
      browsers: [...this.browsers.values()].map((row): BrowserView => ({
        ...{ id: row.id, person: row.person, device: row.device },
        ...{ letInAt: row.let_in_at.getTime(), seenAt: row.seen_at.getTime() },
        isOwn: row.id === own,
      })),
      invitations: [...this.invitations.values()]
        .filter((row) => row.ends_at.getTime() > now)
        .map((row) => ({
          ...{ id: row.id, by: row.made_by },
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
