// People, what they may do, and programs that act for them.

/** What somebody may do, each all of those before it; to keep is to see to people, wires and jobs. */
export const ROLES = ['look', 'plan', 'assign', 'keep'] as const;
export type Role = (typeof ROLES)[number];

/** A right to send on the wire of a job, until it ends. */
export interface SendGrantView {
  readonly job: string;
  /** The adapter. */
  readonly wire: string;
  readonly until: number;
  readonly by: string;
}

/** Whoever asks. */
export interface MeView {
  /** Null of the machine's own person, who needs no account. */
  readonly id: string | null;
  /** Empty until the first decision. */
  readonly name: string;
  readonly role: Role;
  readonly hasPassword: boolean;
  readonly grants: readonly SendGrantView[];
}

/** An account: of a person, or of a program that acts with a token. */
export interface AccountView {
  readonly id: string;
  readonly kind: 'person' | 'program';
  readonly name: string;
  readonly role: Role;
  readonly hasPassword: boolean;
  readonly madeAt: number;
  readonly madeBy: string;
  /** When a program's token ends; null of people. */
  readonly endsAt: number | null;
  readonly grants: readonly SendGrantView[];
  /** The one that asks. */
  readonly isOwn: boolean;
}

export interface PeopleView {
  readonly accounts: readonly AccountView[];
}

/** A token, told this once. */
export interface NewProgramView {
  readonly id: string;
  readonly token: string;
  readonly endsAt: number;
}

/** The shortest password (OWASP ASVS 4.0.3, 2.1.1), and the longest that is taken (2.1.2). */
export const PASSWORD = { least: 12, most: 128 } as const;
