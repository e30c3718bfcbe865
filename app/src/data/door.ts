import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import { KEY_MARK, type DoorView, type KeysView } from '@ipsonomo/core/api';
import { reading } from './act';
import { ApiError, ask } from './http';

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
  const known = key === undefined ? undefined : await ask(acts.readDoor, {}).catch(() => undefined);
  if (key !== undefined && !known) await ask(acts.enter, {}, { body: { key } });
  return known ?? ask(acts.readDoor, {});
}

export const isLocked = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code === 'door.locked');

const isWrongKey = (error: unknown): boolean =>
  error instanceof ApiError && error.issues.some(({ code }) => code.startsWith('door.'));

/** Whether this browser is let in; a server that does not answer is no shut door. */
export function useDoor(): { readonly state: 'asking' | 'open' | 'shut'; readonly error: unknown } {
  const { error, isPending } = useQuery({
    queryKey: keys.door,
    queryFn: askAtTheDoor,
    retry: false,
    staleTime: Infinity,
  });
  if (isPending) return { state: 'asking', error: undefined };
  return { state: isWrongKey(error) ? 'shut' : 'open', error };
}

/** Told by anything that the server refused for want of a key. */
export const askedAnew = { queryKey: keys.door };

export function useEnter() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (key: string) => ask(acts.enter, {}, { body: { key } }),
    onSuccess: () => client.resetQueries(),
  });
}

export const useKeys = (): KeysView | undefined =>
  useQuery({ ...reading(acts.listKeys, {}), refetchInterval: 5000 }).data;
