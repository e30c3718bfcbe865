import { expect, type Page } from '@playwright/test';
import { SHELF, WAY_WORDS } from '@ipsonomo/core/plan';
import { test } from './demo';
import { jobView } from './jobs';
import { goTo, openDemo, PAGES, PHONE, WIDE } from './pages';

// The application in a language nobody speaks, each letter with a sign and each text 40 % longer: what stands there in
// plain letters is no word of the language's room, and what is too narrow for longer words is cut or pushed aside.

/** Texts of a page, attributes that are read aloud included. */
const TEXTS = `(() => {
  const found = new Set();
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const { parentElement } = walk.currentNode;
    if (!parentElement?.closest('script, style, noscript')) found.add(walk.currentNode.data.trim());
  }
  for (const one of document.querySelectorAll('[aria-label], [placeholder], [title]'))
    for (const name of ['aria-label', 'placeholder', 'title'])
      if (one.hasAttribute(name)) found.add(one.getAttribute(name).trim());
  return [...found, document.title];
})()`;

/** Every text of an answer of the server: data, which no language has. */
function textsOf(value: unknown, found: Set<string>): Set<string> {
  if (typeof value === 'string') found.add(value);
  else if (typeof value === 'object' && value !== null)
    Object.entries(value).forEach(([key, one]) => textsOf(one, found.add(key)));
  return found;
}

/** Said where the words of this page's setting do not reach: by a worker, or by a router that no plan names. */
const ELSEWHERE = /^It works|^Router of the site$|has nowhere to send the reply/;

/** Plain words that are no data: two letters in a row that no text of the server has. */
function plainIn(texts: readonly string[], data: string): readonly string[] {
  return texts.filter(
    (text) =>
      !ELSEWHERE.test(text) &&
      text
        .split(/[^A-Za-z]+/)
        .some((word) => /[a-z]{3,}/.test(word) && !data.includes(word.toLowerCase())),
  );
}

/** What stays plain on a page: an answer may be drawn before its texts are known here, so it is looked again. */
async function plainOn(page: Page, data: ReadonlySet<string>): Promise<readonly string[]> {
  let plain: readonly string[] = [];
  await expect(async () => {
    plain = plainIn(await page.evaluate<string[]>(TEXTS), [...data].join('\n').toLowerCase());
    expect(plain).toEqual([]);
  })
    .toPass({ timeout: 5000 })
    .catch(() => undefined);
  return plain;
}

test('no page has a word outside the language, and words longer by 40 % break none', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  // The shelf of kinds is data that comes with the application; the cells of a sheet are as lists write them.
  const data = textsOf([SHELF, Object.values(WAY_WORDS)], new Set<string>());
  page.on('response', (answer) => {
    if (answer.url().includes('/api/') && /json/.test(answer.headers()['content-type'] ?? ''))
      void answer.json().then(
        (all: unknown) => textsOf(all, data),
        () => undefined,
      );
  });
  await openDemo(page, server);
  await page.addInitScript(`globalThis.ipsonomoLanguage = 'pseudo'`);
  const root = page.url().replace(/\/plan$/, '');
  const { devices, subnets } = await jobView(server, root.replace(/.*\//, ''));
  const at = devices[0]?.interfaces[0]?.id;
  const own = [`device/${devices[0]?.id}`, `call/${at}`, `subnet/${subnets[0]?.id}`];
  const wrong: string[] = [];
  for (const path of [...PAGES, ...own]) {
    await goTo(page, `${root}/${path}`);
    for (const size of [PHONE, WIDE]) {
      await page.setViewportSize(size);
      await page.getByRole('heading').first().waitFor();
      wrong.push(...(await plainOn(page, data)).map((text) => `${path}: ${text}`));
      wrong.push(...(await pushedAside(page)).map((text) => `${path} at ${size.width}: ${text}`));
    }
  }
  expect([...new Set(wrong)]).toEqual([]);
});

/** A page that scrolls sideways, or a button whose words are cut. */
const pushedAside = (page: Page): Promise<readonly string[]> =>
  page.evaluate<string[]>(`(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    const page = scrollWidth > clientWidth ? ['the page is ' + scrollWidth + ' wide'] : [];
    const cut = [...document.querySelectorAll('[role=button], button')].filter(
      (one) => one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 0,
    );
    return [...page, ...cut.map((one) => 'cut: ' + one.textContent)];
  })()`);
