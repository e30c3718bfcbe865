import {
  acts,
  isFile,
  type AnyAct,
  type AnswerOf,
  type ParamsOf,
  type QueryOf,
} from '@ipsonomo/contract';
import type { ErrorView } from '@ipsonomo/core/api';
import { sentenceOf } from '@ipsonomo/language';
import type { Issue } from '@ipsonomo/core/net';
import type { EditConflict } from '@ipsonomo/core/plan';
import { keepAnswer, keptAnswer } from './kept-answers';
import { readSettings } from './settings';

/** A refusal by the server, or its silence. */
export class ApiError extends Error {
  constructor(
    readonly issues: readonly Issue[],
    readonly conflicts: readonly EditConflict[] = [],
    /** Of the answer (RFC 9110 §15); undefined where there was none. */
    readonly status?: number,
  ) {
    super(issues.map(sentenceOf).join(' '));
  }
}

/** This browser is not let in, or not any more. */
export const isLocked = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code === 'door.locked');

/** Nobody answered at all. */
export const isAway = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code === 'server.away');

const AWAY: Issue = { code: 'server.away', where: '' };

/** What a page needs to be worked with where there is no network. A plan and what was seen are kept with their changes. */
const CARRIED: ReadonlySet<AnyAct> = new Set<AnyAct>([
  ...[acts.listJobs, acts.readDoor, acts.readMe, acts.readPlan, acts.readProgress],
  ...[acts.readRound, acts.readField, acts.readEvidence, acts.listWrittenTicks],
  ...[acts.listRevisions, acts.listHandOvers, acts.listRuns, acts.listProofs],
]);
const isCarried = (act: AnyAct): boolean => CARRIED.has(act);

/** What goes along with an act. */
export interface Along<A extends AnyAct> {
  readonly query?: QueryOf<A>;
  /** A file as it is, or what becomes JSON. */
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
}

/** Where something is asked: `/api/jobs/…`. */
export function pathOf<A extends AnyAct>(act: A, params: ParamsOf<A>, query?: QueryOf<A>): string {
  const values = params as Readonly<Record<string, string>>;
  const path = (act.path as string).replace(/:(\w+)/g, (_all, name: string) =>
    encodeURIComponent(values[name] ?? ''),
  );
  const words = new URLSearchParams(query as Record<string, string> | undefined).toString();
  return `/api${path}${words === '' ? '' : `?${words}`}`;
}

/** Asks the server for something of the contract. Throws an {@link ApiError}. */
export async function ask<A extends AnyAct>(
  act: A,
  params: ParamsOf<A>,
  { query, body, headers: more = {} }: Along<A> = {},
): Promise<AnswerOf<A>> {
  const headers: Record<string, string> = {
    'x-person': encodeURIComponent(readSettings().person),
    ...more,
  };
  const init: RequestInit = { method: act.method as string, headers };
  if (isFile(act.body)) {
    headers['content-type'] = act.body.file;
    init.body = body as Blob;
  } else if (act.method !== 'GET') {
    headers['content-type'] = 'application/json';
    init.body = JSON.stringify(body ?? {});
  }
  const mayBeKept = query === undefined && isCarried(act);
  const asked = fetch(pathOf(act, params, query), init).catch(() => undefined);
  const soon = await (mayBeKept ? orPatience(asked) : asked);
  // A server without its database has nothing newer to tell.
  const isMute = soon === undefined || soon.status === 503;
  const kept = isMute && mayBeKept ? await keptOf(act, params) : undefined;
  if (kept !== undefined) {
    if (soon !== undefined) return kept;
    void asked.then((late) => (late ? lateWatchers.forEach((watcher) => watcher()) : undefined));
    return kept;
  }
  const response = soon ?? (await asked);
  if (!response) throw new ApiError([AWAY]);
  if (!response.ok) {
    const error = (await response.json().catch(() => undefined)) as ErrorView | undefined;
    throw new ApiError(error?.issues ?? [AWAY], error?.conflicts, response.status);
  }
  const text = await response.text();
  if (mayBeKept) void keepAnswer(pathOf(act, params), text);
  return (text === '' ? undefined : JSON.parse(text)) as AnswerOf<A>;
}

/** Told when an answer came after all, where what was kept has been shown in its place. */
export const lateWatchers = new Set<() => void>();

/** A network that is there and leads nowhere refuses nothing: after so long what is kept is shown, if anything is. */
const PATIENCE = 8_000;

const orPatience = (asked: Promise<Response | undefined>): Promise<Response | undefined> =>
  new Promise((resolve) => {
    const timer = setTimeout(() => resolve(undefined), PATIENCE);
    void asked.then(resolve).finally(() => clearTimeout(timer));
  });

/** Without the server a page is told what was answered last. */
async function keptOf<A extends AnyAct>(
  act: A,
  params: ParamsOf<A>,
): Promise<AnswerOf<A> | undefined> {
  const kept = isCarried(act) ? await keptAnswer(pathOf(act, params)) : undefined;
  if (!kept) return undefined;
  const answer = JSON.parse(kept.text) as AnswerOf<A> & object;
  stepsBehind.set(answer, kept.steps);
  return answer;
}

const stepsBehind = new WeakMap<object, readonly unknown[]>();

/** What was told after an answer that was kept; nothing after one that comes from the server. */
export const stepsAfter = (answer: object): readonly unknown[] => stepsBehind.get(answer) ?? [];
