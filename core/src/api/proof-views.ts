import type { ConnectionEnd } from '../plan';
import type { ProofEnd, ProofResult, ProofScope, Stranger } from '../proof';
import type { Bucket, VigilState, VigilSummary } from '../vigil';

// Runs of proofs and vigils, as pages are told and ask for them.

/** So many devices of a vigil are drawn, those that lost most; of the others the sum is told. */
export const DRAWN = 40;

/** One device of a vigil. */
export interface VigilRowView {
  readonly interfaceId: string;
  readonly summary: VigilSummary;
  /** None where it is not drawn. */
  readonly buckets: readonly Bucket[];
}

/** The vigil that goes on, or the last one; the one that lost most stands first. */
export interface VigilView {
  readonly state: (Omit<VigilState, 'how'> & { readonly how: 'done' | 'stopped' | null }) | null;
  /** How many buckets there are at its end. */
  readonly buckets: number;
  readonly rows: readonly VigilRowView[];
}

/** One run of a proof, as it is listed. */
export interface ProofView {
  readonly id: string;
  readonly source: string;
  readonly person: string;
  /** Of the plan, when it began. */
  readonly revision: number;
  /** What it was over. */
  readonly scope: string;
  readonly startedAt: number;
  readonly endedAt: number | null;
  readonly how: ProofEnd | null;
  /** Interfaces that were to be asked. */
  readonly total: number;
  readonly proven: number;
  readonly contradicted: number;
  readonly silent: number;
  readonly strangers: number;
}

/** A run with all that it found. */
export interface ProofDetailView extends Omit<ProofView, 'strangers'> {
  readonly interfaceIds: readonly string[];
  readonly results: readonly ProofResult[];
  readonly strangers: readonly Stranger[];
}

/** One register as a person writes it. */
export interface RegisterWish {
  readonly unit: number;
  readonly written: string;
  readonly counting: ConnectionEnd['counting'];
}

export interface VigilWish {
  readonly scope: ProofScope;
  readonly everySeconds: number;
  readonly minutes: number;
}

export interface ProofWish {
  readonly scope: ProofScope;
  /** Packets a second in all, at most 1000. */
  readonly perSecond: number;
}
