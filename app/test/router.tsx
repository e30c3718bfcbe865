import { cloneElement, type ReactElement } from 'react';

// Stands in for the router in tests of screens: nobody goes anywhere, and its links are links.

export const useRouter = () => ({ navigate: jest.fn() });

export const Link = ({ href, children }: { href: string; children: ReactElement }) =>
  cloneElement(children as ReactElement<object>, { href, role: 'link' } as object);
