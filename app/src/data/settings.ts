import { useSyncExternalStore } from 'react';

/** What this device remembers of its person. */
export interface Settings {
  readonly person: string;
  readonly mode: 'auto' | 'light' | 'dark';
  /** What was put on this laptop's adapter and has to come off again. */
  readonly laptop: { readonly address: string; readonly back: readonly string[] } | null;
  /** By job: the order of calls that this person chose. */
  readonly orders: Readonly<Record<string, readonly string[]>>;
  /** How far the first steps have come; null where nobody is at them. */
  readonly first: FirstSteps | null;
}

/** What was said in the first steps, until the job stands. */
export interface FirstSteps {
  readonly step: 1 | 2 | 3;
  readonly job: string;
  /** The adapter; empty where the plan is rehearsed first. */
  readonly wire: string;
  readonly subnet: string;
  readonly network: string;
  /** Of the job, once it is there; empty before. */
  readonly jobId: string;
}

export const FIRST_STEPS: FirstSteps = {
  ...{ step: 1, job: '', wire: '', subnet: '', network: '', jobId: '' },
};

const KEY = 'ipsonomo.settings';
const FIRST: Settings = { person: '', mode: 'auto', laptop: null, orders: {}, first: null };
const listeners = new Set<() => void>();
let current: Settings | undefined;

export function readSettings(): Settings {
  if (current) return current;
  try {
    const kept = globalThis.localStorage?.getItem(KEY);
    current = kept ? { ...FIRST, ...(JSON.parse(kept) as Partial<Settings>) } : FIRST;
  } catch {
    current = FIRST; // no storage, or a text that is no longer ours
  }
  return current;
}

export function changeSettings(change: Partial<Settings>): void {
  current = { ...(current ?? readSettings()), ...change };
  try {
    globalThis.localStorage?.setItem(KEY, JSON.stringify(current));
  } catch {
    // Storage is full or forbidden: the choice holds until the page is closed.
  }
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useSettings = (): Settings => useSyncExternalStore(subscribe, readSettings);
