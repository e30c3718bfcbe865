import type { ServerResponse } from 'node:http';

// What a person is told in place of a device's page.

export interface Told {
  readonly status: number;
  readonly title: string;
  readonly words: string;
}

export const BARRED: Told = {
  ...{ status: 403, title: 'Not through this adapter' },
  words: 'This page comes in through the adapter of the plant. Open it from another network.',
};

export const NOT_LET_IN: Told = {
  ...{ status: 403, title: 'Not this browser' },
  words:
    'This page was opened from another browser. Open it from the call of the device in this one.',
};

export const NO_PAGE: Told = {
  ...{ status: 503, title: 'No page is open' },
  words:
    'It was closed, because nobody read it or somebody fell silent. Open it again from the call of the device.',
};

export const away = (host: string): Told => ({
  ...{ status: 502, title: 'The device does not answer' },
  words: `It said nothing at ${host}. After "restart" or "apply" that is as it should be: it is on the way to its new address. Go back to the call, which goes on looking for it.`,
});

export const unreadable = (host: string): Told => ({
  ...{ status: 502, title: 'The device says what no browser understands' },
  words: `What it answered at ${host} is no HTTP that can be handed on. Load the page again; if it stays so, use its maker's way.`,
});

export const leadsElsewhere = (host: string, to: string): Told => ({
  ...{ status: 502, title: 'The page leads somewhere else' },
  words: `The device at ${host} sends the browser to ${to.slice(0, 200)}. If that is its new address, go back to the call: it is looked for there.`,
});

export const NOT_PASSED_ON: Told = {
  ...{ status: 400, title: 'That cannot be passed on' },
  words:
    'What the browser asked for cannot be said to a device as it is. Go back and open the page again.',
};

export const TOO_MANY: Told = {
  ...{ status: 503, title: 'Too much at once' },
  words: 'The device is asked for more than it can give at once. Load the page again in a moment.',
};

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
