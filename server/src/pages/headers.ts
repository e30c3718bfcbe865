import type { IncomingHttpHeaders, OutgoingHttpHeaders } from 'node:http';

// What is handed on between a browser and the page of a device: by name, everything else stays where it is. Neither end
// learns of the other what is not for it, and neither says anything that would bind more than this one page.

/** What a browser may say to a device, besides the device's own names that begin with `x-`. */
const TOWARDS = [
  ...['accept', 'accept-language', 'user-agent', 'range', 'if-range', 'content-type'],
  ...['content-length', 'content-encoding', 'content-disposition', 'content-language'],
  ...['authorization', 'origin', 'referer', 'soapaction'],
];

/** What a device may say to a browser; never what is kept, shared, or holds for other pages as well. */
const BACK = [
  ...['content-type', 'content-length', 'content-encoding', 'content-disposition'],
  ...['content-language', 'content-range', 'accept-ranges', 'allow', 'location', 'refresh'],
  ...['www-authenticate', 'retry-after', 'vary', 'date'],
];

/** Ours, and what speaks of the way a request took: no device's business. */
const NEVER = /^x-(person|browser|forwarded-|real-ip|frame-options|dns-prefetch|powered-by)/;

const isOwn = (name: string): boolean => name.startsWith('x-') && !NEVER.test(name);

function picked(headers: IncomingHttpHeaders, names: readonly string[]): OutgoingHttpHeaders {
  return Object.fromEntries(
    Object.entries(headers).filter(
      ([name, value]) => value !== undefined && (names.includes(name) || isOwn(name)),
    ),
  ) as OutgoingHttpHeaders;
}

/** What one end says about where a page is, as the other end knows it. */
const rewritten = (value: string, from: string, to: string): string => value.replaceAll(from, to);

/** Where both ends are, each as it is known to the other. */
export interface Ends {
  /** The origin that the browser asked. */
  readonly ours: string;
  /** The device's address. */
  readonly host: string;
}

/** @param cookies what this device has set in this opening, as it is to be sent */
export function towardsDevice(
  headers: IncomingHttpHeaders,
  { ours, host }: Ends,
  cookies: string | undefined,
): OutgoingHttpHeaders {
  const out: OutgoingHttpHeaders = { ...picked(headers, TOWARDS), host, connection: 'close' };
  for (const name of ['origin', 'referer'] as const) {
    const value = headers[name];
    if (value !== undefined) out[name] = rewritten(value, ours, `http://${host}`);
  }
  if (cookies !== undefined) out['cookie'] = cookies;
  return out;
}

/** A device's page is never kept by a browser, never guessed at, and no frame of somebody else's. */
const ALWAYS = {
  'cache-control': 'no-store',
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'SAMEORIGIN',
  'referrer-policy': 'same-origin',
};

export function towardsBrowser(
  headers: IncomingHttpHeaders,
  { ours, host }: Ends,
): OutgoingHttpHeaders {
  const out: OutgoingHttpHeaders = { ...picked(headers, BACK), ...ALWAYS, connection: 'close' };
  for (const name of ['location', 'refresh'] as const) {
    const value = headers[name];
    if (typeof value === 'string') out[name] = rewritten(value, `http://${host}`, ours);
  }
  return out;
}

/** Where a redirection leads to, if it leads away from the device: nobody is sent into the plant by it. */
export function leadsAway({ location }: IncomingHttpHeaders, host: string): string | undefined {
  if (location === undefined) return undefined;
  const base = `http://${host}/`;
  if (!URL.canParse(location, base)) return location;
  const to = new URL(location, base);
  return to.origin === new URL(base).origin ? undefined : location;
}
