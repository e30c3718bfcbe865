import { useEffect, type RefObject } from 'react';

/**
 * Whoever goes by keys is never thrown back to the top: where what had the focus goes, since another page came or a button
 * did its work, the page's first heading has it.
 */
export function useKeptFocus(page: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const within = page.current;
    if (!within) return undefined;
    let had: Element | null = null;
    const onFocus = () => {
      had = document.activeElement;
    };
    const onChange = () => {
      const isLost = had !== null && !had.isConnected && document.activeElement === document.body;
      if (!isLost) return;
      had = null;
      within.querySelector<HTMLElement>('h1, h2')?.focus({ preventScroll: true });
    };
    const changes = new MutationObserver(onChange);
    changes.observe(within, { childList: true, subtree: true });
    within.addEventListener('focusin', onFocus);
    return () => {
      changes.disconnect();
      within.removeEventListener('focusin', onFocus);
    };
  }, [page]);
}
