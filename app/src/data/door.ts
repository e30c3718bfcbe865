import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { KEY_MARK, type DoorView, type KeysView, type NewKeyView } from '@ipsonomo/core';
import { ApiError, get, post, remove } from './http';

const DOOR = ['door'];
const KEYS = ['keys'];

const keysQuery = queryOptions({ queryKey: KEYS, queryFn: () => get<KeysView>('/keys') });

/** The key that the address brought; it is taken out of the address at once, so that nobody reads it there. */
function keyOfAddress(): string | undefined {
  const { hash, pathname, search } = globalThis.location ?? {};
  if (!hash?.startsWith(`#${KEY_MARK}`)) return undefined;
  history.replaceState(null, '', `${pathname}${search}`);
  return decodeURIComponent(hash.slice(1 + KEY_MARK.length));
}

async function askAtTheDoor(): Promise<DoorView> {
  const key = keyOfAddress();
  // Whoever is in already needs no second cookie.
  const known = key === undefined ? undefined : await get<DoorView>('/door').catch(() => undefined);
  if (key !== undefined && !known) await post('/door', { key });
  return known ?? get<DoorView>('/door');
}

export const isLocked = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code === 'door.locked');

const isWrongKey = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code.startsWith('door.'));

/** Whether this browser is let in; a server that does not answer is no shut door. */
export function useDoor(): { readonly state: 'asking' | 'open' | 'shut'; readonly error: unknown } {
  const { error, isPending } = useQuery({
    queryKey: DOOR,
    queryFn: askAtTheDoor,
    retry: false,
    staleTime: Infinity,
  });
  if (isPending) return { state: 'asking', error: undefined };
  return { state: isWrongKey(error) ? 'shut' : 'open', error };
}

/** Told by anything that the server refused for want of a key. */
export const askedAnew = { queryKey: DOOR };

export function useEnter() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (key: string) => post('/door', { key }),
    onSuccess: () => client.resetQueries(),
  });
}

export const useKeys = (): KeysView | undefined =>
  useQuery({ ...keysQuery, refetchInterval: 5000 }).data;

export function useNewKey() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => post<NewKeyView>('/keys'),
    onSuccess: () => client.invalidateQueries({ queryKey: KEYS }),
  });
}

export function useTakeKeyBack() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => remove(`/keys/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: KEYS }),
  });
}
