import type { FormatId, HandOverOptions, LeftOut, LeftReason } from '@ipsonomo/core/api';
import type { PlanPapers } from '@ipsonomo/core/formats';
import { formatIpv4 } from '@ipsonomo/core/net';
import type { Evidence, Plan, PlannedInterface, Stage } from '@ipsonomo/core/plan';
import type { Snag } from '@ipsonomo/core/snags';

// What every format is given and what it gives. A format is a folder of its own and a line of the registry.

/** How far an interface was seen to be, and by what last. */
export interface Seen {
  readonly stage: Stage;
  readonly last: Evidence | undefined;
  /** The latest of each kind. */
  readonly all: readonly Evidence[];
}

/** The state of a job that is handed over. Addresses and times are of this moment, whatever comes later. */
export interface Material {
  readonly job: string;
  readonly revision: number;
  /** When it is written, in milliseconds since 1970. */
  readonly at: number;
  readonly plan: Plan;
  /** The interfaces that are meant; the plan has the others too, for what leads to them. */
  readonly chosen: readonly PlannedInterface[];
  readonly seen: (interfaceId: string) => Seen;
  /** Those that nobody has accepted. */
  readonly snags: readonly Snag[];
  /** Who takes it; what is wrong in the plan leaves only with their word. */
  readonly person: string;
  /** Where a device opens in this installation, for a code on its label; undefined where nothing is served. */
  readonly linkTo: ((interfaceId: string) => string) | undefined;
  readonly options: HandOverOptions;
  /** What the plan's papers hold; undefined where nobody wants the plan itself. */
  readonly papers: PlanPapers | undefined;
  /** Who ticked off when that a place says what it should, by `interface key value`. */
  readonly ticks: ReadonlyMap<string, Tick> | undefined;
  /** What seals a proof; undefined where there is none, as on a command line with a plan alone. */
  readonly record: ProofRecord | undefined;
}

export interface Tick {
  readonly person: string;
  readonly at: number;
}

/** A link of a chain: what was sealed, and the SHA-256 of the link before with it, in hex. */
export type Sealed =
  | { readonly text: string; readonly chain: string }
  /** So many pieces were folded into a count; the chain goes on from here. */
  | { readonly folded: number; readonly chain: string };

/** What a proof is made of beside the plan. */
export interface ProofRecord {
  /** All evidence of the job in its order, as it was sealed when it was written. */
  readonly evidence: readonly Sealed[];
  readonly revisions: readonly RevisionLine[];
  /** Of this installation, as PEM (RFC 7468). */
  readonly publicKey: string;
  /** Ed25519 (RFC 8032) over the bytes. */
  readonly sign: (bytes: Uint8Array) => Uint8Array;
}

export interface RevisionLine {
  readonly number: number;
  readonly at: string;
  readonly person: string;
  readonly what: string;
  /** SHA-256 of its edits as JSON, in hex. */
  readonly edits: string;
}

/** One file; text is UTF-8. */
export interface WrittenFile {
  readonly name: string;
  readonly content: string | Uint8Array;
}

export interface Written {
  readonly files: readonly WrittenFile[];
  readonly left: readonly LeftOut[];
}

/** A format and its writer; who reads it says `FORMATS_FOR` of core. */
export interface Format {
  readonly id: FormatId;
  readonly write: (material: Material) => Written | Promise<Written>;
}

/** @param ending with its dot */
export const fileName = ({ job, revision }: Material, what: string, ending: string): string =>
  `${job} ${what} revision ${revision}${ending}`.replace(/[/\\:*?"<>|\u0000-\u001f]+/g, '-');

export const leftOut = (
  { device, at }: PlannedInterface,
  reason: LeftReason,
  value = '',
): LeftOut => ({
  ...{ interfaceId: at.id, title: device.title, reason, value },
  address: formatIpv4(at.address),
});
