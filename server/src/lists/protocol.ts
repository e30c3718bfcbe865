import type { Issue, ListLines, ListTaking, NewRows, PlanView, SheetSummary } from '@ipsonomo/core';

/** What a list begins with. */
export interface ListFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What the list is asked for: devices from it, or the lines of a sheet as they stand there. */
export type ListAsk =
  | {
      readonly kind: 'make';
      readonly taking: ListTaking;
      readonly things: PlanView['things'];
      readonly now: number;
    }
  | { readonly kind: 'lines'; readonly sheet: number };

/** Whose answer it is. */
export interface Numbered {
  readonly ask: number;
}

export type ListNews =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'ready'; readonly sheets: readonly SheetSummary[] }
  | { readonly kind: 'failed'; readonly issue: Issue }
  | ({ readonly kind: 'lines'; readonly lines: ListLines } & Numbered)
  | ({
      readonly kind: 'made';
      readonly made: Pick<NewRows, 'bad' | 'edits'>;
      /** How many lines the list has. */
      readonly count: number;
    } & Numbered);
