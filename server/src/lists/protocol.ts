import type { Issue, ListTaking, NewRows, PlanView, SheetSummary } from '@ipsonomo/core';

/** What a list begins with. */
export interface ListFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Asks for devices from the list. */
export interface ListAsk {
  readonly ask: number;
  readonly taking: ListTaking;
  readonly things: PlanView['things'];
  readonly now: number;
}

export type ListNews =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'ready'; readonly sheets: readonly SheetSummary[] }
  | { readonly kind: 'failed'; readonly issue: Issue }
  | {
      readonly kind: 'made';
      readonly ask: number;
      readonly made: Pick<NewRows, 'bad' | 'edits'>;
      /** How many lines the list has. */
      readonly count: number;
    };
