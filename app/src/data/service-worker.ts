/** After the page is of use, in milliseconds: the files that are kept are not to be in its way. */
const LATER = 4_000;
/** Where the server was away just then, in milliseconds. */
const AGAIN = 60_000;

/**
 * Has the browser keep the application, so that it opens without a network. A page over plain HTTP may not have that (Secure
 * Contexts, W3C): there the other pages are loaded ahead, so that they open as long as the tab stays open. In development
 * files change too often for either.
 */
export function keepApplication(): () => void {
  if (process.env['NODE_ENV'] !== 'production') return () => undefined;
  const { serviceWorker } = globalThis.navigator as Partial<Navigator>;
  const keep = serviceWorker
    ? () => serviceWorker.register('/service-worker.js')
    : () => loadAhead();
  let timer: ReturnType<typeof setTimeout>;
  const soon = (millis: number) => {
    timer = setTimeout(() => void keep().catch(() => soon(AGAIN)), millis);
  };
  soon(LATER);
  return () => clearTimeout(timer);
}

/** One after the other, into what the browser keeps of itself: files with a hash in their name never change. */
async function loadAhead(): Promise<void> {
  const listed = await fetch('/files.json');
  for (const url of (await listed.json()) as readonly string[])
    if (url.startsWith('/_expo/')) await (await fetch(url, { priority: 'low' })).arrayBuffer();
}
