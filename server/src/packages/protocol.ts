import type { FormatId, FormatLeft, PackageFile, PackageWish } from '@ipsonomo/core/api';
import type { Issue } from '@ipsonomo/core/net';
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

export type PackageNews =
  | { readonly kind: 'progress'; readonly done: number; readonly doing: FormatId }
  | {
      readonly kind: 'ready';
      readonly name: string;
      readonly bytes: number;
      readonly files: readonly PackageFile[];
      readonly left: readonly FormatLeft[];
      readonly text: string | null;
    }
  | { readonly kind: 'failed'; readonly issue: Issue };
