import { useCallback, useState } from 'react';

const PREFIX = 'draft ';

/** What was kept is taken only where it has the form of what is typed there now; what was left out there is null. */
function isLike(kept: unknown, first: unknown): boolean {
  if (kept === null) return true;
  if (Array.isArray(first)) return Array.isArray(kept);
  if (typeof first !== 'object' || first === null)
    return first === undefined || first === null || typeof kept === typeof first;
  if (typeof kept !== 'object') return false;
  return Object.entries(first).every(([field, value]) =>
    isLike((kept as Readonly<Record<string, unknown>>)[field], value),
  );
}

function read<T>(about: string, first: T): T {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(PREFIX + about) ?? 'null');
    return kept !== null && isLike(kept, first) ? (kept as T) : first;
  } catch {
    return first; // a browser that keeps nothing, or something else
  }
}

function write(about: string, value: unknown, first: unknown): void {
  try {
    const text = JSON.stringify(value);
    if (value === undefined || text === JSON.stringify(first))
      sessionStorage.removeItem(PREFIX + about);
    else sessionStorage.setItem(PREFIX + about, text);
  } catch {
    // It stands in the form all the same.
  }
}

type Change<T> = (next: T | ((before: T) => T)) => void;

/**
 * What somebody has typed and chosen in a form: kept for this tab until it is said or left, so that a page that is loaded
 * anew, turned or come back to still has it.
 * @param about what it is for, and of which thing
 * @param first what stands there before anybody typed
 * @returns what is typed, what changes it, and what forgets it without emptying the form: whoever is refused has it there
 * still
 */
export function useKept<T>(
  about: string,
  first: T,
): readonly [value: T, change: Change<T>, forget: () => void] {
  const [typed, setTyped] = useState(() => ({ about, value: read(about, first) }));
  // Another thing's form: its own draft, not the one before.
  if (typed.about !== about) setTyped({ about, value: read(about, first) });
  const change = useCallback<Change<T>>(
    (next) =>
      setTyped((before) => {
        const known = before.about === about ? before.value : read(about, first);
        const value = next instanceof Function ? next(known) : next;
        write(about, value, first);
        return { about, value };
      }),
    [about, first],
  );
  const forget = useCallback(() => write(about, undefined, undefined), [about]);
  return [typed.about === about ? typed.value : read(about, first), change, forget];
}

/** A text that somebody is typing. */
export const useDraft = (about: string) => useKept(about, '');
