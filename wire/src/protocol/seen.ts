import type { HeardClient } from '@ipsonomo/core/answering';
import type { Ipv4, MacAddress } from '@ipsonomo/core/net';
import type { EvidenceKind, FactsOf } from '@ipsonomo/core/plan';
import type { Station } from '@ipsonomo/core/wire';
import type { FieldTarget } from './plan';

// What is seen on the wire.

/** Keeps something that was seen of a planned interface and its bound MAC. */
export type RecordEvidence = <K extends EvidenceKind>(
  kind: K,
  target: FieldTarget,
  facts: FactsOf<K>,
  more: {
    /** The frame that showed it. */
    readonly frame?: Uint8Array;
    /** Who asked for it; else it is the person who let Ipsonomo answer. */
    readonly person?: string;
    /** When it was seen, where that was before now. */
    readonly at?: number;
  },
) => void;

/** Something that was seen, in the order it was seen. */
export interface FieldEvent {
  readonly runId: string;
  readonly jobId: string;
  /** Counts from 1 within the run. */
  readonly sequence: number;
  readonly at: number;
  readonly interfaceId: string;
  readonly kind: EvidenceKind;
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4 | undefined;
  readonly source: string;
  readonly person: string;
  readonly facts: Readonly<Record<string, string | number>>;
  /** The frame that showed it, hex. */
  readonly bytes: string | undefined;
}

/** A station that answered discovery, and the frame that showed it. */
export interface FoundStation {
  readonly station: Station;
  readonly firstAt: number;
  readonly lastAt: number;
  readonly frame: Uint8Array;
}

/** Somebody seen with an address in this run. */
export interface Sighting {
  readonly mac: MacAddress;
  readonly address: Ipv4;
  readonly lastAt: number;
}

/** What changed in what was heard; `all` stands for everything anew. */
export interface HeardChange {
  readonly all: boolean;
  readonly clients: readonly HeardClient[];
  readonly forgotten: readonly MacAddress[];
}
