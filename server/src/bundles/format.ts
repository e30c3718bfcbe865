import type { CarriedJob, CarriedLink, CarriedRevision, CarriedTable } from '../store/bundle-store';

// A bundle: lines of JSON, packed (RFC 1952). The first says what it is, the last how many there are, and what seals them.

export const FORMAT = 'ipsonomo-bundle';
export const VERSION = 1;
/** Unpacked, in bytes. */
export const MOST_BYTES = 2_000_000_000;
export const MEGA = 1_000_000;

export interface Head {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly job: CarriedJob;
  readonly server: { readonly id: string; readonly name: string };
  /** Milliseconds since 1970. */
  readonly at: number;
  /** The plan before anything was changed: `[type, thing]` each. */
  readonly base: readonly (readonly [string, object])[];
}

export interface End {
  /** Lines before this one. */
  readonly end: number;
  /** SHA-256 (FIPS 180-4) of them, each with its line feed, in hex. */
  readonly sha256: string;
  /** Ed25519 (RFC 8032) over that text, in base64. */
  readonly signature: string;
  /** PEM (RFC 7468). */
  readonly publicKey: string;
}

export type Line =
  | { readonly revision: CarriedRevision }
  | { readonly table: CarriedTable; readonly row: object }
  | { readonly link: CarriedLink }
  /** SHA-256 of its bytes, and those in base64. */
  | { readonly paper: string; readonly bytes: string }
  | { readonly photo: string; readonly bytes: string };
