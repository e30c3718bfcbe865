import type { DescriptionView, Issue, Result } from '@ipsonomo/core';

export interface DescriptionFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** The one thing that the thread says. */
export type DescriptionRead = Result<DescriptionView, Issue>;
