import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { acts, keys } from '@ipsonomo/contract';
import { KEY_MARK, type DoorView, type KeysView, type MeView } from '@ipsonomo/core/api';
import { reading } from './act';
import { ApiError, ask, isLocked } from './http';
import { forgetAnswers } from './kept-answers';

/** The key that the address brought; it is taken out of the address at once, so that nobody reads it there. */
function keyOfAddress(): string | undefined {
  const { hash, pathname, search } = globalThis.location ?? {};
  if (!hash?.startsWith(`#${KEY_MARK}`)) return undefined;
  history.replaceState(null, '', `${pathname}${search}`);
  return decodeURIComponent(hash.slice(1 + KEY_MARK.length));
}

/** Milliseconds after the door opened. */
const TAKEN_OUT_AGAIN = [0, 100, 500, 2000, 5000];

async function askAtTheDoor(): Promise<DoorView> {
  const key = keyOfAddress();
  // Whoever is in already needs no second cookie.
  const known = key === undefined ? undefined : await ask(acts.readDoor, {}).catch(() => undefined);
  if (key !== undefined && !known) await ask(acts.enter, {}, { body: { key } });
  if (known) return known;
  try {
    return await ask(acts.readDoor, {});
  } catch (error) {
    // What was told to whoever was let in is not for whoever comes next.
    if (isLocked(error)) await forgetAnswers();
    throw error;
  }
}

const isWrongKey = (error: unknown): boolean =>
  error instanceof ApiError &&
  error.issues.some(({ code }) => code.startsWith('door.') || code === 'people.wrong');

/** Whether this browser is let in; a server that does not answer is no shut door. */
export function useDoor(): { readonly state: 'asking' | 'open' | 'shut'; readonly error: unknown } {
  const { error, isPending } = useQuery({
    queryKey: keys.door,
    queryFn: askAtTheDoor,
    retry: false,
    staleTime: Infinity,
  });
  // The router writes the address it began with once more, some time after it is shown.
  useEffect(() => {
    const timers = isPending ? [] : TAKEN_OUT_AGAIN.map((at) => setTimeout(keyOfAddress, at));
    return () => timers.forEach(clearTimeout);
  }, [isPending]);
  if (isPending) return { state: 'asking', error: undefined };
  return { state: isWrongKey(error) ? 'shut' : 'open', error };
}

/** Whether this is a demo, as the door said. */
export const useIsDemo = (): boolean =>
  useQueryClient().getQueryData<DoorView>(keys.door)?.isDemo ?? false;

/** Told by anything that the server refused for want of a key. */
export const askedAnew = { queryKey: keys.door };

export function useEnter() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (key: string) => ask(acts.enter, {}, { body: { key } }),
    onSuccess: () => client.resetQueries(),
  });
}

/** Somebody comes in now and then: both lists are looked at again. */
const AGAIN = { refetchInterval: 5000 };

export const usePeople = () => useQuery({ ...reading(acts.listPeople, {}), ...AGAIN });

export const useKeys = (): KeysView | undefined =>
  useQuery({ ...reading(acts.listKeys, {}), ...AGAIN }).data;

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { readonly name: string; readonly password: string }) =>
      ask(acts.signIn, {}, { body }),
    onSuccess: () => client.resetQueries(),
  });
}

/** Whoever sits here, as the server knows them; undefined until it has said. */
export const useMe = (): MeView | undefined => useQuery(reading(acts.readMe, {})).data;
