import type { SheetSummary } from '@ipsonomo/core/api';
import type { Issue } from '@ipsonomo/core/net';

/** What a list begins with. */
export interface ListFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What the thread that reads it says; after the last two it ends. */
export type ListNews =
  | { readonly kind: 'progress'; readonly share: number }
  | {
      readonly kind: 'ready';
      readonly sheets: readonly SheetSummary[];
      /** Its tables, packed (`kept.ts`). */
      readonly kept: Uint8Array;
    }
  | { readonly kind: 'failed'; readonly issue: Issue };
