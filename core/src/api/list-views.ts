import type { Issue } from '../net';
import type { BadRowCell, ColumnId, RowDefaults, RowUpdate, UnknownKind } from '../sheet';

/** A sheet of a list that is being imported. */
export interface SheetSummary {
  readonly name: string;
  readonly headings: readonly string[];
  readonly count: number;
  /** The first lines, to see what a column holds. */
  readonly sample: readonly (readonly string[])[];
}

export type ListView =
  /** So many files are read first. */
  | { readonly state: 'waiting'; readonly before: number }
  /** How much was read, 0 to 1. */
  | { readonly state: 'reading'; readonly share: number }
  | { readonly state: 'ready'; readonly sheets: readonly SheetSummary[] }
  | { readonly state: 'failed'; readonly issue: Issue };

/** A sheet as it stands there, its headings first. */
export interface ListLines {
  readonly lines: readonly (readonly string[])[];
  /** How many lines it has below them; more than are told where there are too many. */
  readonly count: number;
}

/** How the columns of one sheet are taken. */
export interface ListTaking {
  readonly sheet: number;
  /** For each heading; null leaves the column out. */
  readonly columns: readonly (ColumnId | null)[];
  readonly defaults: RowDefaults;
  /** Held against the devices that are there; else every line is a new one. */
  readonly update?: {
    /** Devices that no line is of are taken out. */
    readonly takesOut: boolean;
  };
}

/** What would come of a list. */
export interface ListPreview {
  readonly count: number;
  /** Lines with a bad cell: they make no device. */
  readonly badLines: number;
  /** The first of them, in the order of the list. */
  readonly bad: readonly BadListCell[];
  /** Words for kinds that nobody knows. */
  readonly unknownKinds: readonly UnknownKind[];
  /** The first devices as they would be. */
  readonly devices: readonly PreviewDevice[];
  /** What a list that comes again changes; null where it only adds. */
  readonly update: UpdatePreview | null;
  /** Snags that the devices would bring, the worst first. */
  readonly wrong: number;
}

export interface UpdatePreview {
  readonly added: number;
  readonly same: number;
  readonly changed: number;
  /** The first of them. */
  readonly changes: readonly (RowUpdate & { readonly line: number })[];
  readonly gone: number;
  /** Titles of the first of them. */
  readonly leaving: readonly string[];
}

/** A bad cell with its line in the file, counted from 1. */
export interface BadListCell extends BadRowCell {
  readonly line: number;
}

export interface PreviewDevice {
  readonly title: string;
  readonly name: string;
  readonly address: string;
  readonly subnet: string;
  readonly kind: string;
}
