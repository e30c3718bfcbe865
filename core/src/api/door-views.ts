import type { Role } from './people-views';

/** Whoever asks: a browser that was let in, or the machine itself through its socket. */
/** The authority of this installation, which a phone is to trust so that it opens the application encrypted. */
export interface AuthorityView {
  /** Where it is opened encrypted then, a port of this machine; null where it has none: it is opened on this machine alone, or shows a certificate that it was given. */
  readonly port: number | null;
  /** SHA-256 of its certificate: `AB:CD:…`; empty where there is none. */
  readonly fingerprint: string;
}

export interface DoorView {
  readonly isMachine: boolean;
  /** Of a demo: whoever has its key may do everything. */
  readonly isDemo: boolean;
}

/** A browser that was let in. */
export interface BrowserView {
  readonly id: string;
  readonly account: string;
  /** Whose it is; empty where they have no name yet. */
  readonly person: string;
  /** What the browser said it is. */
  readonly device: string;
  readonly letInAt: number;
  readonly seenAt: number;
  /** The one that asks. */
  readonly isOwn: boolean;
}

/** A key that is good still. The key itself is known only to those who have it. */
export interface InvitationView {
  readonly id: string;
  readonly by: string;
  /** What whoever comes in with it may do. */
  readonly role: Role;
  /** Whom it lets in again; null where it makes an account. */
  readonly person: string | null;
  readonly madeAt: number;
  readonly endsAt: number;
}

export interface KeysView {
  readonly browsers: readonly BrowserView[];
  readonly invitations: readonly InvitationView[];
}

/** A new key, told this once. */
export interface NewKeyView {
  readonly key: string;
  readonly endsAt: number;
  /** Addresses that open this server and bring the key; what follows the # is never sent over the wire. */
  readonly addresses: readonly string[];
}

/** What follows the # of an address that brings a key. */
export const KEY_MARK = 'key=';

/** A key as it is read aloud: four letters at a time. */
export const spokenKey = (key: string): string => key.replace(/(.{4})(?=.)/g, '$1-');
