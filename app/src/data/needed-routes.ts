import { queryOptions, skipToken } from '@tanstack/react-query';
import { thingsOf, type PlanView } from '@ipsonomo/core/api';
import type { PlanDoc } from '@ipsonomo/core/plan';
import type { LinkCell, NeededPair, SettingsFound } from '@ipsonomo/core/routes';
import type { PlanNow } from './plan-state';
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

type Found = ReadonlyMap<string, SettingsFound>;

/** What the thread is asked: the connections that are needed, or who can talk with whom. */
export interface RoutesQuestion {
  /** Of the plan, as text: what is sent to a thread is data and nothing more. */
  readonly things: PlanView['things'];
  readonly wants: 'routes' | 'lanes';
  /** Masks and gateways that count instead of the planned ones, by interface. */
  readonly found?: Found;
}

const asked = <T extends object>(
  doc: PlanDoc,
  question: Omit<RoutesQuestion, 'things'>,
): Promise<T> =>
  askWorker<T>(new Worker(new URL('./routes.worker.ts', import.meta.url)), {
    ...question,
    things: thingsOf(doc),
  });

const walked = (doc: PlanDoc, found: Found = NOTHING): Promise<readonly NeededRoute[]> =>
  asked<{ readonly routes: readonly NeededRoute[] }>(doc, { wants: 'routes', found }).then(
    ({ routes }) => routes,
  );

const NOTHING: Found = new Map();

/** Every connection a plan speaks of, walked anew where the plan is another. */
export const neededRoutesQuery = (plan: PlanNow | undefined) =>
  queryOptions({
    queryKey: ['job', plan?.id, 'needed-routes', plan?.revision],
    queryFn: plan ? () => walked(plan.doc) : skipToken,
    placeholderData: (before: readonly NeededRoute[] | undefined) => before,
  });

/** The same with the masks and gateways that were found; asked for only where some are other than planned. */
export const foundRoutesQuery = (plan: PlanNow | undefined, found: Found) =>
  queryOptions({
    queryKey: ['job', plan?.id, 'found-routes', plan?.revision, [...found]],
    queryFn: plan && found.size > 0 ? () => walked(plan.doc, found) : skipToken,
    placeholderData: (before: readonly NeededRoute[] | undefined) => before,
  });

/** The same with a change that nobody made yet. @param what the change, in a word that tells it from others */
export const whatIfQuery = (plan: PlanNow | undefined, doc: PlanDoc | undefined, what: string) =>
  queryOptions({
    queryKey: ['job', plan?.id, 'what-if', plan?.revision, what],
    queryFn: doc ? () => walked(doc) : skipToken,
  });

/** Who can talk with whom, lane by lane. */
export const lanesQuery = (plan: PlanNow | undefined) =>
  queryOptions({
    queryKey: ['job', plan?.id, 'lanes', plan?.revision],
    queryFn: plan
      ? () =>
          asked<{ readonly cells: readonly LinkCell[] }>(plan.doc, { wants: 'lanes' }).then(
            ({ cells }) => cells,
          )
      : skipToken,
  });
