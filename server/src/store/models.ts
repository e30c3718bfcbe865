import { Model } from 'objection';
import type {
  FormatId,
  Reader,
  Role,
  Mistake,
  MistakeKind,
  MistakeWish,
  Unrehearsed,
} from '@ipsonomo/core/api';
import type { Edit, JsonObject } from '@ipsonomo/core/plan';
import type { ProofEnd, Stranger } from '@ipsonomo/core/proof';

// Rows as they stand in PostgreSQL: `cidr`, `inet` and `macaddr` arrive as text, times as Date.

export class JobRow extends Model {
  declare id: string;
  declare name: string;
  declare created_at: Date;
  declare archived_at: Date | null;
  declare has_practice_site: boolean;
  static override readonly tableName = 'job';
}

/** A job that rehearses the plan of another. */
export class RehearsalRow extends Model {
  declare job_id: string;
  declare of_job: string | null;
  declare of_name: string;
  declare of_revision: number;
  declare seed: number;
  declare wish: MistakeWish;
  declare mistakes: readonly Mistake[];
  declare unrehearsed: readonly Unrehearsed[];
  declare wrong_claims: number;
  declare begun_at: Date;
  declare ended_at: Date | null;
  static override readonly tableName = 'rehearsal';
  static override readonly idColumn = 'job_id';
}

/** A mistake of a rehearsal that somebody found. */
export class FoundMistakeRow extends Model {
  declare job_id: string;
  declare mistake: string;
  declare kind: MistakeKind;
  declare interface_id: string;
  declare person: string;
  declare at: Date;
  static override readonly tableName = 'found_mistake';
  static override readonly idColumn = ['job_id', 'mistake'];
}

/** One thing of a plan; its body is text as in a plan file. */
export class ThingRow extends Model {
  declare job_id: string;
  declare type: string;
  declare id: string;
  declare ordinal: string;
  declare body: JsonObject;
  static override readonly tableName = 'thing';
  static override readonly idColumn = ['job_id', 'type', 'id'];
  static override readonly jsonAttributes = ['body'];
}

export class RevisionRow extends Model {
  declare job_id: string;
  declare number: number;
  declare at: Date;
  declare person: string;
  declare what: string;
  declare edits: readonly Edit[];
  declare name: string | null;
  declare undoes: number | null;
  /** Whose it is; null of the machine's own person, and of what is older than accounts. */
  declare account_id: string | null;
  declare uid: string;
  declare depth: number;
  declare is_joining: boolean;
  static override readonly tableName = 'revision';
  static override readonly idColumn = ['job_id', 'number'];
  static override readonly jsonAttributes = ['edits'];
}

export class RunRow extends Model {
  declare id: string;
  declare job_id: string;
  declare source: string;
  declare person: string;
  declare started_at: Date;
  declare ended_at: Date | null;
  static override readonly tableName = 'run';
}

export class EvidenceRow extends Model {
  declare id: string;
  declare job_id: string;
  declare interface_id: string;
  declare run_id: string | null;
  declare sequence: number | null;
  declare kind: string;
  declare at: Date;
  declare mac: string | null;
  declare address: string | null;
  declare source: string;
  declare person: string;
  declare facts: Record<string, string | number>;
  declare bytes: Buffer | null;
  static override readonly tableName = 'evidence';
  static override readonly jsonAttributes = ['facts'];
}

/** One run of a proof; what it found is evidence whose facts name it. */
export class ProofRow extends Model {
  declare id: string;
  declare job_id: string;
  declare run_id: string | null;
  declare source: string;
  declare person: string;
  /** Of the plan, when it began. */
  declare revision: number;
  declare scope: string;
  declare interface_ids: readonly string[];
  declare started_at: Date;
  declare ended_at: Date | null;
  declare how: ProofEnd | null;
  declare strangers: readonly Stranger[];
  /** How many interfaces ended as what; null where that is to be counted. */
  declare counts: Readonly<Record<string, number>> | null;
  static override readonly tableName = 'proof';
  static override readonly jsonAttributes = ['interface_ids', 'strangers', 'counts'];
}

/** What a paper holds; which kind it belongs to and what it is called stands in the plan. */
export class PaperRow extends Model {
  declare job_id: string;
  declare id: string;
  declare bytes: Buffer;
  declare at: Date;
  static override readonly tableName = 'paper';
  static override readonly idColumn = ['job_id', 'id'];
}

export class HandOverRow extends Model {
  declare id: string;
  declare job_id: string;
  declare at: Date;
  declare person: string;
  /** The reader. */
  declare what: Reader;
  declare revision: number;
  declare formats: readonly FormatId[];
  static override readonly tableName = 'hand_over';
  static override readonly jsonAttributes = ['formats'];
}

/** A key that lets browsers in for a while; of the key itself only its SHA-256 is kept. */
export class InvitationRow extends Model {
  declare id: string;
  declare digest: Buffer;
  declare made_by: string;
  declare made_at: Date;
  declare ends_at: Date;
  /** What whoever comes in with it may do. */
  declare role: Role;
  /** Whom it lets in; null where it makes an account. */
  declare account_id: string | null;
  /** It is used up by the first. */
  declare is_once: boolean;
  static override readonly tableName = 'invitation';
}

/** A person, or a program that acts with a token; of the token only its SHA-256 is kept, of the password its argon2id. */
export class AccountRow extends Model {
  declare id: string;
  declare kind: 'person' | 'program';
  declare name: string;
  declare role: Role;
  declare password: string | null;
  declare token: Buffer | null;
  declare made_at: Date;
  declare made_by: string;
  declare ends_at: Date | null;
  declare ended_at: Date | null;
  static override readonly tableName = 'account';
}

/** Somebody may send on the wire of a job until then. */
export class SendGrantRow extends Model {
  declare account_id: string;
  declare job_id: string;
  declare wire: string;
  declare until: Date;
  declare made_by: string;
  static override readonly tableName = 'send_grant';
  static override readonly idColumn = ['account_id', 'job_id', 'wire'];
}

/** A browser that was let in, known by the SHA-256 of its cookie. */
export class BrowserRow extends Model {
  declare id: string;
  declare digest: Buffer;
  declare account_id: string;
  declare device: string;
  declare let_in_at: Date;
  declare seen_at: Date;
  static override readonly tableName = 'browser';
}
