import { sentenceOf, type EditConflict, type ErrorView, type Issue } from '@ipsonomo/core';
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

type Sent = { readonly type: string; readonly body: BodyInit };

const asJson = (value: unknown): Sent => ({
  type: 'application/json',
  body: JSON.stringify(value),
});

async function ask<T>(method: string, path: string, sent?: Sent): Promise<T> {
  const headers: Record<string, string> = {
    'x-person': encodeURIComponent(readSettings().person),
  };
  if (sent) headers['content-type'] = sent.type;
  const init: RequestInit = { method, headers, ...(sent ? { body: sent.body } : {}) };
  const response = await fetch(`/api${path}`, init).catch(() => undefined);
  if (!response) throw new ApiError([AWAY]);
  if (!response.ok) {
    const error = (await response.json().catch(() => undefined)) as ErrorView | undefined;
    throw new ApiError(error?.issues ?? [AWAY], error?.conflicts);
  }
  const text = await response.text();
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

export const get = <T>(path: string): Promise<T> => ask('GET', path);
export const post = <T = void>(path: string, body: unknown = {}): Promise<T> =>
  ask('POST', path, asJson(body));
export const patch = <T = void>(path: string, body: unknown): Promise<T> =>
  ask('PATCH', path, asJson(body));

export const remove = (path: string): Promise<void> => ask('DELETE', path);

/** A file as it is. @param type its content type, as the server knows it */
export const postFile = <T>(path: string, file: Blob, type: string): Promise<T> =>
  ask('POST', path, { type, body: file });
