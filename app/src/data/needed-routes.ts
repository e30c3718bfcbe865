import { queryOptions, skipToken } from '@tanstack/react-query';
import type { NeededPair, PlanDoc } from '@ipsonomo/core';
import type { PlanNow } from './queries';
import { askWorker } from './worker';

/** A connection the plan speaks of, and what it comes to. */
export interface NeededRoute {
  /** Of the device. */
  readonly from: string;
  /** Of the interface. */
  readonly to: string;
  readonly why: NeededPair['why'];
  readonly works: 'yes' | 'not-by-itself' | 'no';
  readonly title: string;
  readonly text: string;
}

const walked = (doc: PlanDoc): Promise<readonly NeededRoute[]> =>
  askWorker<{ readonly routes: readonly NeededRoute[] }>(
    new Worker(new URL('./routes.worker.ts', import.meta.url)),
    doc,
  ).then(({ routes }) => routes);

/** Every connection a plan speaks of, walked anew where the plan is another. */
export const neededRoutesQuery = (plan: PlanNow | undefined) =>
  queryOptions({
    queryKey: ['job', plan?.id, 'needed-routes', plan?.revision],
    queryFn: plan ? () => walked(plan.doc) : skipToken,
    placeholderData: (before: readonly NeededRoute[] | undefined) => before,
  });
