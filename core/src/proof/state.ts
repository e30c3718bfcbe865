import type { Said, ServiceFound } from './compare-found';

/** Somebody on the wire whom the plan does not know, with what was found out. */
export interface Stranger {
  readonly mac: string;
  readonly addresses: readonly string[];
  /** As it was heard to be called, whichever way. */
  readonly names: readonly string[];
  /** Those that are open. */
  readonly services: readonly ServiceFound[];
  readonly said: Said | null;
  /** The title of its web page. */
  readonly page: string | null;
  /** It was heard asking for an address; null where it was not. */
  readonly asks: {
    readonly by: 'BootP' | 'DHCP';
    /** As it names its kind in the request; empty where it does not. */
    readonly vendorClass: string;
  } | null;
}

/** How a run ended. `cut-off`: the server went away in the middle. */
export type ProofEnd = 'done' | 'stopped' | 'no-link' | 'cut-off';

/** A run as it goes on. */
export interface ProofState {
  readonly proofId: string;
  readonly phase: 'sweep' | 'ask' | 'strangers' | 'ended';
  readonly total: number;
  /** Interfaces that were not asked to the end. */
  readonly left: number;
  readonly how: ProofEnd | undefined;
  /** Told at the end of it. */
  readonly strangers: readonly Stranger[];
}
