import {
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
import { readSettings } from './settings';

/** A refusal by the server, or its silence. */
export class ApiError extends Error {
  constructor(
    readonly issues: readonly Issue[],
    readonly conflicts: readonly EditConflict[] = [],
  ) {
    super(issues.map(sentenceOf).join(' '));
  }
}

const AWAY: Issue = { code: 'server.away', where: '' };

/** What goes along with an act. */
export interface Along<A extends AnyAct> {
  readonly query?: QueryOf<A>;
  /** A file as it is, or what becomes JSON. */
  readonly body?: unknown;
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
  { query, body }: Along<A> = {},
): Promise<AnswerOf<A>> {
  const headers: Record<string, string> = {
    'x-person': encodeURIComponent(readSettings().person),
  };
  const init: RequestInit = { method: act.method as string, headers };
  if (isFile(act.body)) {
    headers['content-type'] = act.body.file;
    init.body = body as Blob;
  } else if (act.method !== 'GET') {
    headers['content-type'] = 'application/json';
    init.body = JSON.stringify(body ?? {});
  }
  const response = await fetch(pathOf(act, params, query), init).catch(() => undefined);
  if (!response) throw new ApiError([AWAY]);
  if (!response.ok) {
    const error = (await response.json().catch(() => undefined)) as ErrorView | undefined;
    throw new ApiError(error?.issues ?? [AWAY], error?.conflicts);
  }
  const text = await response.text();
  return (text === '' ? undefined : JSON.parse(text)) as AnswerOf<A>;
}
