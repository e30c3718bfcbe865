import { cloneElement, type ReactElement } from 'react';

// Stands in for the router in tests of screens: nobody goes anywhere, and its links are links. Where somebody wanted to
// go is kept.

const gone: string[] = [];

/** Where the page would be now; undefined where nobody went anywhere. */
export const wentTo = (): string | undefined => gone.at(-1);

export const useRouter = () => ({
  navigate: (href: string) => void gone.push(href),
  back: () => void gone.push('back'),
});

export const useSegments = (): readonly string[] => [];

export const Link = ({ href, children }: { href: string; children: ReactElement }) =>
  cloneElement(children as ReactElement<object>, { href, role: 'link' } as object);
