import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

// Opens the application where there is no network (Service Workers, W3C): its files are kept by the browser, each under
// what it holds. What the server is asked never passes through here. A new version waits until the pages of the one
// before are closed, so that these find their own files to the end.

/** Written in by the build: every file, with its revision where its name does not tell it. */
declare const FILES: readonly { readonly url: string; readonly revision: string | null }[];

precacheAndRoute([...FILES]);
cleanupOutdatedCaches();

/** A server that does not answer for so long, in milliseconds, is none. */
const PATIENCE = 3_000;

const nothing = (): Promise<undefined> =>
  new Promise((resolve) => setTimeout(() => resolve(undefined), PATIENCE));

/** The page as the server has it, so that a new version is seen at once; without the server as it is kept. */
async function page({ request }: { readonly request: Request }): Promise<Response> {
  const asked = fetch(request).catch(() => undefined);
  const soon = await Promise.race([asked, nothing()]);
  if (soon?.ok) return soon;
  return (await matchPrecache('/index.html')) ?? (await asked) ?? Response.error();
}

registerRoute(new NavigationRoute(page, { denylist: [/^\/api(\/|$)/] }));
