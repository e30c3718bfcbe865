import type { ServerResponse } from 'node:http';
import { RELAYED_TITLES, RELAYED_WORDS } from '@ipsonomo/language/relayed';

// What a person is told in place of a device's page.

export interface Told {
  readonly status: number;
  readonly title: string;
  readonly words: string;
}

type Unasked = 'barred' | 'notLetIn' | 'noPage' | 'notPassedOn' | 'tooMany';

const told = (status: number, one: Unasked): Told => ({
  status,
  title: RELAYED_TITLES[one],
  words: RELAYED_WORDS[one],
});

export const BARRED = told(403, 'barred');
export const NOT_LET_IN = told(403, 'notLetIn');
export const NO_PAGE = told(503, 'noPage');
export const NOT_PASSED_ON = told(400, 'notPassedOn');
export const TOO_MANY = told(503, 'tooMany');

export const away = (host: string): Told => ({
  status: 502,
  title: RELAYED_TITLES.away,
  words: RELAYED_WORDS.away({ host }),
});

export const unreadable = (host: string): Told => ({
  status: 502,
  title: RELAYED_TITLES.unreadable,
  words: RELAYED_WORDS.unreadable({ host }),
});

/** So much of an address is shown. */
const LONGEST = 200;

export const leadsElsewhere = (host: string, to: string): Told => ({
  ...{ status: 502, title: RELAYED_TITLES.leadsElsewhere },
  words: RELAYED_WORDS.leadsElsewhere({ host, to: to.slice(0, LONGEST) }),
});

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

export function tell(response: ServerResponse, { status, title, words }: Told): void {
  if (response.headersSent) {
    response.destroy();
    return;
  }
  response.writeHead(status, {
    ...{ 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' },
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
    connection: 'close',
  });
  response.end(
    `<!doctype html><meta name="viewport" content="width=device-width"><title>${escaped(title)}</title>` +
      `<body style="font:17px/1.5 sans-serif;max-width:34em;margin:3em auto;padding:0 1em">` +
      `<h1 style="font-size:27px">${escaped(title)}</h1><p>${escaped(words)}</p>`,
  );
}
