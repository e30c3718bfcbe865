import { useSyncExternalStore } from 'react';
import type { AnyAct } from '@ipsonomo/contract';
import { ApiError } from './http';
import { changeSettings, readSettings } from './settings';

// Everything that is decided has somebody who decided it: whoever has no name yet is asked at the first decision, which
// then goes on by itself.

interface Asking {
  readonly goOn: () => void;
  readonly leave: (error: Error) => void;
}

let waiting: readonly Asking[] = [];
const listeners = new Set<() => void>();

function change(next: readonly Asking[]): void {
  waiting = next;
  for (const listener of listeners) listener();
}

/** Looking is nobody's decision, and ending what is sent or heard never waits for anything. */
const isDecision = (act: AnyAct): boolean =>
  act.right !== 'look' && act.right !== 'door' && !act.path.endsWith('/rest');

/** Whoever decides, as soon as that is known; refuses with `person.needed` where they leave it. */
export async function whoDecides(): Promise<string> {
  if (readSettings().person.trim() === '')
    await new Promise<void>((goOn, leave) => change([...waiting, { goOn, leave }]));
  return readSettings().person;
}

/** Resolves at once for what is nobody's decision, else as soon as it is known whose it is. */
export async function named(act: AnyAct): Promise<void> {
  if (isDecision(act)) await whoDecides();
}

export function giveName(person: string): void {
  changeSettings({ person: person.trim() });
  const all = waiting;
  change([]);
  for (const { goOn } of all) goOn();
}

export function leaveUnnamed(): void {
  const all = waiting;
  change([]);
  for (const { leave } of all) leave(new ApiError([{ code: 'person.needed', where: '' }]));
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether something waits for a name. */
export const useNameAsked = (): boolean =>
  useSyncExternalStore(subscribe, () => waiting.length > 0);
