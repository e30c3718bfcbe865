import { useEffect, useState } from 'react';
import type { Box } from '@ipsonomo/core/picture';

/** Drawn beyond what is seen, and how far it moves before more is drawn, in pixels. */
const BESIDE = 400;

/** The part of an element that is in the window; undefined where that cannot be told. */
function seenOf(element: HTMLElement): Box | undefined {
  const { left, top, width, height } = element.getBoundingClientRect();
  if (width === 0 || height === 0) return undefined;
  const step = (value: number) => Math.floor(value / BESIDE) * BESIDE;
  return {
    ...{ x: step(-left) - BESIDE, y: step(-top) - BESIDE },
    width: window.innerWidth + 3 * BESIDE,
    height: window.innerHeight + 3 * BESIDE,
  };
}

const isSame = (a: Box | undefined, b: Box | undefined): boolean =>
  a?.x === b?.x && a?.y === b?.y && a?.width === b?.width && a?.height === b?.height;

/** What is seen of an element, told again as it is scrolled, whatever scrolls it. */
export function useSeenBox(element: HTMLElement | null): Box | undefined {
  const [seen, setSeen] = useState<Box | undefined>(undefined);
  useEffect(() => {
    if (!element) return;
    const look = () => {
      const now = seenOf(element);
      setSeen((before) => (isSame(before, now) ? before : now));
    };
    look();
    // Scrolling does not rise to whoever is outside, but it can be caught on its way down.
    document.addEventListener('scroll', look, { capture: true, passive: true });
    window.addEventListener('resize', look);
    return () => {
      document.removeEventListener('scroll', look, { capture: true });
      window.removeEventListener('resize', look);
    };
  }, [element]);
  return seen;
}
