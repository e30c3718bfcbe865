import { useSyncExternalStore } from 'react';
import type { QueryClient } from '@tanstack/react-query';
import { acts, keys, WAITED_HEADERS, type ActName, type AnyAct } from '@ipsonomo/contract';
import type { EditedView } from '@ipsonomo/core/api';
import { applyEdits, changeOf, findDoc, type Edit } from '@ipsonomo/core/plan';
import { ApiError, ask, isLocked, lateWatchers } from './http';
import { newId } from './new-id';
import { Outbox, type Outcome, type Sent, type WaitingAct } from './outbox';
import { outboxStore } from './outbox-store';
import type { PlanNow } from './plan-state';
import { readSettings } from './settings';

// The one outbox of a page, and what a page shows as done that is not yet sent.

const watchers = new Set<() => void>();
const doneIn = new Set<(job: string) => void>();

/** One after the other over all tabs, where the browser has locks (it has none on a page over plain HTTP). */
const chains = new Map<string, Promise<unknown>>();
function inTurn<T>(job: string, work: () => Promise<T>): Promise<T> {
  const { locks } = globalThis.navigator ?? {};
  if (locks) return locks.request(`ipsonomo-outbox-${job}`, work) as Promise<T>;
  const turn = (chains.get(job) ?? Promise.resolve()).then(work, work);
  chains.set(
    job,
    turn.catch(() => undefined),
  );
  return turn;
}

/** A server that is busy, or starting, is away for the moment. */
const isAway = ({ status }: ApiError): boolean =>
  status === undefined || status === 429 || status >= 500;

async function send(one: WaitingAct): Promise<Sent> {
  const act = acts[one.act] as AnyAct;
  const headers = {
    [WAITED_HEADERS.key]: one.id,
    [WAITED_HEADERS.doneAt]: String(one.doneAt),
    [WAITED_HEADERS.sentAt]: String(Date.now()),
    [WAITED_HEADERS.place]: String(one.place),
    'x-person': encodeURIComponent(one.person),
    ...(one.account === undefined ? {} : { [WAITED_HEADERS.account]: one.account }),
  };
  try {
    return { kind: 'done', answer: await ask(act, one.params, { body: one.body, headers }) };
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    if (isAway(error) || isLocked(error)) return { kind: 'away' };
    return { kind: 'refused', refused: { issues: error.issues, conflicts: error.conflicts } };
  }
}

export const outbox = new Outbox({
  ...{ store: outboxStore(), send, inTurn },
  changed: () => watchers.forEach((watcher) => watcher()),
  done: (job) => doneIn.forEach((told) => told(job)),
});

/** Whose browser this is, as the server said last. */
let account: string | undefined;
const readAccount = async (): Promise<void> => {
  account = (await ask(acts.readMe, {})).id ?? undefined;
};

const nameOf = new Map(Object.entries(acts).map(([name, act]) => [act as AnyAct, name as ActName]));

/** Does an act that may wait; it is done now, or kept and sent as soon as the server is there. */
export function doOrKeep(
  act: AnyAct,
  params: Readonly<Record<string, string>>,
  body: unknown,
  known: PlanNow | undefined,
): Promise<Outcome> {
  return outbox.do({
    ...{ id: newId(), act: nameOf.get(act) ?? 'edit', params, body: body ?? {} },
    ...{ edits: editsOf(act, params, body, known), doneAt: Date.now() },
    ...{ person: readSettings().person, account, refused: null },
  });
}

/** What it changes of the plan, so that the page can show it before the server has made it. */
function editsOf(
  act: AnyAct,
  params: Readonly<Record<string, string>>,
  body: unknown,
  known: PlanNow | undefined,
): readonly Edit[] {
  if (act === acts.edit) return (body as { readonly edits: readonly Edit[] }).edits;
  const isBinding = act === acts.bind;
  if (!known || (!isBinding && act !== acts.unbind)) return [];
  const thing = findDoc(known.doc, 'interface', params['interface'] ?? '');
  const mac = isBinding ? (body as { readonly mac: string }).mac : null;
  return thing ? changeOf('interface', thing, { mac }) : [];
}

/** The plan with what waits to be sent; what no longer fits is left out, and refused when it is sent. */
export function withHeld(plan: PlanNow): PlanNow {
  let { doc } = plan;
  for (const { params, refused, edits } of outbox.held) {
    if (params['job'] !== plan.id || refused !== null) continue;
    const outcome = applyEdits(doc, edits);
    if (outcome.ok) ({ doc } = outcome.value);
  }
  return doc === plan.doc ? plan : { ...plan, doc };
}

/** What an act that waits is taken to have answered: the plan with what waits is shown at once. */
export function showHeld(client: QueryClient, job: string): EditedView {
  // What is not sent yet is not to be taken away for want of room (Storage Standard §6).
  void (globalThis.navigator?.storage as StorageManager | undefined)?.persist?.();
  const known = client.getQueryData<PlanNow>(keys.plan(job));
  const next = known && withHeld(known);
  if (next && next !== known) client.setQueryData<PlanNow>(keys.plan(job), next);
  return { revision: known?.revision ?? 0, edits: [] };
}

const subscribe = (watcher: () => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

/** What waits here to be sent, in its order. */
export const useHeld = (): readonly WaitingAct[] =>
  useSyncExternalStore(subscribe, () => outbox.held);

const AGAIN = 15_000;

/**
 * Sends what waits whenever there is reason to hope: at the start, when the browser has a network again, when it is looked
 * at, and now and then.
 */
export function keepSending(client: QueryClient): () => void {
  const told = (job: string) => void client.invalidateQueries({ queryKey: keys.job(job) });
  doneIn.add(told);
  const late = () => void client.invalidateQueries();
  lateWatchers.add(late);
  const flush = () => void outbox.flush().catch(() => undefined);
  const whileHeld = () =>
    outbox.held.some(({ refused }) => refused === null) ? flush() : undefined;
  const timer = setInterval(whileHeld, AGAIN);
  globalThis.addEventListener?.('online', flush);
  globalThis.document?.addEventListener('visibilitychange', flush);
  void readAccount().catch(() => undefined);
  flush();
  return () => {
    doneIn.delete(told);
    lateWatchers.delete(late);
    clearInterval(timer);
    globalThis.removeEventListener?.('online', flush);
    globalThis.document?.removeEventListener('visibilitychange', flush);
  };
}
