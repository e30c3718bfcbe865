import { expect, type Page, type Request } from '@playwright/test';
import { test } from './demo';
import { api, letBrowserIn } from './harness';
import { button, goTo, openDemo, PHONE, pick, place } from './pages';

// Who was not let in gets no further than the door; who was is listed, and can be sent out again.

test.describe('a browser that was not let in', () => {
  test.use({ isLetIn: false });

  test('meets a door that is shut: a wrong key, the right one typed; another with fewer rights, a password, and an end', async ({
    page,
    server,
    browser,
  }) => {
    await page.goto(`${server.url}/job/anything/plan`);
    await expect(page.getByRole('heading', { name: 'Come in' })).toBeVisible();
    await page.getByLabel('The key: twenty letters and digits').fill('0000-0000-0000-0000-0000');
    await button(page, 'Come in with it').click();
    await expect(page.getByText('This key opens nothing')).toBeVisible();
    const { key } = await api<{ key: string }>(server, 'POST', '/keys');
    const spoken = key.toLowerCase().replace(/(.{4})(?=.)/g, '$1 ');
    await page.getByLabel('The key: twenty letters and digits').fill(spoken);
    await button(page, 'Come in with it').click();
    // It is in once the door has gone; whoever went elsewhere before would come without its cookie.
    await expect(page.getByRole('heading', { name: 'Come in' })).toBeHidden();
    await openDemo(page, server);
    const job = page.url();

    await test.step('a second one comes in with the address that the first one shows', async () => {
      await goTo(page, `${server.url}/people`);
      await expect(page.getByText('Mara Quist (this browser)')).toBeVisible();
      await page.getByRole('radio', { name: 'look', exact: true }).click();
      await button(page, 'Make a key').click();
    });
    const address = await page.getByText(/^http:\/\/127\.0\.0\.1:\d+\/#key=/).innerText();
    const other = await (await browser.newContext({ viewport: PHONE })).newPage();
    await other.goto(address);
    await expect(button(other, 'Tern Cove hatchery')).toBeVisible();
    await expect(other).not.toHaveURL(/key/);
    await expect(other.getByText('You may look.')).toBeVisible();
    await expect(button(other, 'People …')).toBeHidden();

    await test.step('they may look, and are told what they may not; a password lets them in again', async () => {
      await other.getByLabel('Your name, written beside everything you decide').fill('Ilse Brandt');
      await button(other, 'Set a password').click();
      await other.getByLabel(/^The new password/).fill('four words in a row');
      await button(other, 'Keep this password').click();
      await expect(button(other, 'Another password')).toBeVisible();
      await goTo(other, job.replace(/plan$/, 'new-subnet'));
      await other.getByLabel('Name', { exact: true }).fill('Laboratory');
      await other.getByLabel('Network with prefix length').fill('172.22.99.0/24');
      await button(other, 'Add this subnet').click();
      await expect(
        other.getByText('For this one has to be allowed to plan; you may look.'),
      ).toBeVisible();
    });

    await test.step('with the right it goes on where it stood', async () => {
      // Chosen is not yet so.
      await Promise.all([
        page.waitForResponse((answer) => /\/people\/[^/]+$/.test(answer.url())),
        pick(page, 'What they may do: Ilse Brandt', 'plan and assign'),
      ]);
      await button(other, 'Add this subnet').click();
      await expect(other).toHaveURL(/plan|subnet\//);
    });

    await test.step('a browser that is taken back comes in again with name and password; an account that is taken away does not', async () => {
      await button(page, 'Take back: Ilse Brandt').click();
      await expect(other.getByRole('heading', { name: 'Come in' })).toBeVisible();
      await other.getByLabel('Name', { exact: true }).fill('Ilse Brandt');
      await other.getByLabel('Password').fill('not these words');
      await button(other, 'Sign in').click();
      await expect(other.getByText('Name and password do not belong together.')).toBeVisible();
      await other.getByLabel('Password').fill('four words in a row');
      await button(other, 'Sign in').click();
      await expect(other.getByRole('heading', { name: 'Come in' })).toBeHidden();
      await button(page, 'Take away: Ilse Brandt').click();
      await button(page, /^Take Ilse Brandt away/).click();
      await expect(other.getByRole('heading', { name: 'Come in' })).toBeVisible();
    });
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
