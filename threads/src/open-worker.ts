import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Worker, type ResourceLimits, type TransferListItem } from 'node:worker_threads';

/** Where a thread's program is: beside the bundle, or as TypeScript where there is no bundle. */
export interface Program {
  readonly bundle: string;
  /** From the root of the repository. */
  readonly source: string;
}

/** Where bundles are looked for: beside this one, unless somebody knows that they were built elsewhere just now. */
export const bundles = { folder: __dirname };

export function openWorker(
  { bundle, source }: Program,
  workerData: unknown,
  {
    resourceLimits = {},
    transfer = [],
  }: { resourceLimits?: ResourceLimits; transfer?: readonly TransferListItem[] } = {},
): Worker {
  const bundled = join(bundles.folder, bundle);
  const options = { workerData, resourceLimits, transferList: [...transfer] };
  if (existsSync(bundled)) return new Worker(bundled, options);
  const execArgv = ['--require', require.resolve('tsx/cjs')];
  return new Worker(join(__dirname, '../..', source), { ...options, execArgv });
}
