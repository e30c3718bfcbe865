import type { FieldError } from './refusal';
import type { FoundStation, HeardChange, Sighting } from './seen';
import type { FieldStatus } from './status';
import type { SharedVigil } from './vigil-ring';

// What the wire's thread tells.

export type FieldReport =
  | { readonly kind: 'answer'; readonly id: number; readonly error: FieldError | undefined }
  | { readonly kind: 'status'; readonly status: FieldStatus }
  | ({ readonly kind: 'heard' } & HeardChange)
  /** Every station found in this run. */
  | { readonly kind: 'stations'; readonly stations: readonly FoundStation[] }
  /** Everybody seen with an address in this run. */
  | { readonly kind: 'present'; readonly present: readonly Sighting[] }
  /** A vigil begins; its beats can be read there. */
  | { readonly kind: 'vigil'; readonly vigil: SharedVigil }
  | { readonly kind: 'events'; /** As the journal has them. */ readonly lines: string };
