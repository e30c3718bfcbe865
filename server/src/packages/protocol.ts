import type { FormatId, PackageView, PackageWish } from '@ipsonomo/core/api';
import type { Database } from '../store/database';

// What the main thread and the thread that writes a package say to each other.

export interface PackageOrder {
  readonly database: Database;
  readonly jobId: string;
  readonly wish: PackageWish;
  readonly person: string;
  /** Under which this installation is opened: what a code on a label leads to. */
  readonly origin: string;
  /** Where it is to stand when it is whole. */
  readonly path: string;
  readonly captures: string;
}

/** How far it is, in the words in which a page is told. */
export type PackageNews =
  | { readonly state: 'writing'; readonly done: number; readonly doing: FormatId }
  | Exclude<PackageView, { readonly state: 'writing' }>;
