import type { DescriptionView } from '@ipsonomo/core/api';
import type { Issue, Result } from '@ipsonomo/core/net';

export interface DescriptionFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** The one thing that the thread says. */
export type DescriptionRead = Result<DescriptionView, Issue>;
