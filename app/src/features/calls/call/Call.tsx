import { lazy, Suspense, useEffect, type ComponentProps } from 'react';
import type { CallPane } from './CallPane';

const load = async () => ({ default: (await import('./CallPane')).CallPane });
const Pane = lazy(load);

/** A call, loaded when it is first looked at. */
export const Call = (props: ComponentProps<typeof CallPane>) => (
  <Suspense fallback={null}>
    <Pane {...props} />
  </Suspense>
);

/** Has calls loaded while somebody reads a page from which they are opened. */
export function useCallsSoon(): void {
  useEffect(() => {
    const idle = setTimeout(() => void load(), 2000);
    return () => clearTimeout(idle);
  }, []);
}
