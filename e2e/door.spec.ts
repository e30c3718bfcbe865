import { expect, type Page, type Request } from '@playwright/test';
import { test } from './demo';
import { api, letBrowserIn } from './harness';
import { button, goTo, openDemo, PHONE, place } from './pages';

// Who was not let in gets no further than the door; who was is listed, and can be sent out again.

test.describe('a browser that was not let in', () => {
  test.use({ isLetIn: false });

  test('meets a door that is shut: a wrong key, the right one typed, a name, and is taken back', async ({
    page,
    server,
    browser,
  }) => {
    await page.goto(`${server.url}/job/anything/plan`);
    await expect(page.getByRole('heading', { name: 'A key is needed' })).toBeVisible();
    await page.getByLabel('The key: twenty letters and digits').fill('0000-0000-0000-0000-0000');
    await button(page, 'Come in').click();
    await expect(page.getByText('This key opens nothing')).toBeVisible();
    const { key } = await api<{ key: string }>(server, 'POST', '/keys');
    const spoken = key.toLowerCase().replace(/(.{4})(?=.)/g, '$1 ');
    await page.getByLabel('The key: twenty letters and digits').fill(spoken);
    await button(page, 'Come in').click();
    // It is in once the door has gone; whoever went elsewhere before would come without its cookie.
    await expect(page.getByRole('heading', { name: 'A key is needed' })).toBeHidden();
    await openDemo(page, server);

    // A second one comes in with the address that the first one shows.
    await goTo(page, `${server.url}/let-in`);
    await expect(page.getByText('Mara Quist (this browser)')).toBeVisible();
    await button(page, 'Make a key').click();
    const address = await page.getByText(/^http:\/\/127\.0\.0\.1:\d+\/#key=/).innerText();
    const other = await (await browser.newContext({ viewport: PHONE })).newPage();
    await other.goto(address);
    await expect(button(other, 'Tern Cove hatchery')).toBeVisible();
    await expect(other).not.toHaveURL(/key/);
    await other.getByLabel('Your name, written beside everything you decide').fill('Ilse Brandt');
    await button(other, 'Tern Cove hatchery').click();
    await expect(other.getByText('Practice site', { exact: true })).toBeVisible();

    await button(page, 'Take back: Ilse Brandt').click();
    await expect(page.getByText('Ilse Brandt')).toBeHidden();
    await expect(other.getByRole('heading', { name: 'A key is needed' })).toBeVisible();
    await other.context().close();
  });
});

// A browser has six connections to one server: with a stream each, the seventh tab would hang. Twenty and more are measured
// by `npm run bench -- web`, for each of them costs as much as a page.
test('eight tabs of one browser: each sees the wire, also after the one that had the stream has gone', async ({
  page,
  server,
  context,
}) => {
  // A phone has a page over plain HTTP, where no tab can take a lock: they have to agree by talking.
  await context.addInitScript(() => Reflect.deleteProperty(Navigator.prototype, 'locks'));
  const streams = new Set<Request>();
  context.on('request', (one) => one.url().includes('/api/events') && streams.add(one));
  for (const event of ['requestfinished', 'requestfailed'] as const)
    context.on(event as 'requestfinished', (one: Request) => streams.delete(one));
  await openDemo(page, server);
  const url = page.url().replace(/plan$/, 'assign');
  const tabs: Page[] = [];
  while (tabs.length < 7) {
    const tab = await context.newPage();
    await goTo(tab, url);
    await expect(tab.getByText('Practice site', { exact: true })).toBeVisible();
    tabs.push(tab);
  }
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  for (const tab of tabs) await expect(tab.getByText('silent, listening')).toBeVisible();
  await expect.poll(() => streams.size).toBe(1);
  await page.close();
  await api(
    server,
    'POST',
    `/jobs/${(await api<{ id: string }[]>(server, 'GET', '/jobs'))[0]?.id}/wire/rest`,
  );
  for (const tab of tabs) await expect(tab.getByText('silent, not listening')).toBeVisible();
});

test('a second browser of another person is another one in the list', async ({
  page,
  server,
  browser,
}) => {
  await openDemo(page, server);
  const context = await browser.newContext();
  await letBrowserIn(context, server);
  const { browsers } = await api<{ browsers: readonly object[] }>(server, 'GET', '/keys');
  expect(browsers).toHaveLength(2);
  await context.close();
});
