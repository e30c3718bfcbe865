import { useCallback, useState } from 'react';

const PREFIX = 'draft ';

const read = (about: string): string => {
  try {
    return sessionStorage.getItem(PREFIX + about) ?? '';
  } catch {
    return ''; // a browser that keeps nothing
  }
};

function write(about: string, text: string): void {
  try {
    if (text === '') sessionStorage.removeItem(PREFIX + about);
    else sessionStorage.setItem(PREFIX + about, text);
  } catch {
    // It stands in the field all the same.
  }
}

/**
 * A text that somebody is typing: kept for this tab until it is said or left, so that a page that is loaded anew, turned or come
 * back to still has it.
 * @param about what it is for, and of which thing
 * @returns the text, what changes it, and what forgets it without emptying the field: whoever is refused has it there still
 */
export function useDraft(
  about: string,
): readonly [text: string, change: (text: string) => void, forget: () => void] {
  const [typed, setTyped] = useState({ about, text: read(about) });
  const text = typed.about === about ? typed.text : read(about);
  const change = useCallback(
    (next: string) => {
      write(about, next);
      setTyped({ about, text: next });
    },
    [about],
  );
  const forget = useCallback(() => write(about, ''), [about]);
  return [text, change, forget];
}
