import { useState } from 'react';
import { setStringAsync } from 'expo-clipboard';
import { PARTS_WORDS } from '@ipsonomo/language/screens/parts';

/** How long it is said, in milliseconds. */
const SAID = 1200;

/**
 * Copies a text and says so for a moment. The browser's clipboard is there on a secure page alone, which a phone that
 * reaches this machine over plain HTTP has not: then it is done in the old way.
 */
export function useCopied(text: string): { readonly said: string | undefined; copy(): void } {
  const [said, setSaid] = useState<string | undefined>(undefined);
  const copy = () => {
    void setStringAsync(text)
      .catch(() => false)
      .then((isCopied) => {
        setSaid(isCopied ? PARTS_WORDS.copied : PARTS_WORDS.notCopiedHoldItToMark);
        setTimeout(() => setSaid(undefined), SAID);
      });
  };
  return { said, copy };
}
