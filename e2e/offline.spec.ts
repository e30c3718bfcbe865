import { expect, type Page } from '@playwright/test';
import type { EvidenceView, PlanView, RevisionView } from '@ipsonomo/core/api';
import { findings } from './axe';
import { test } from './demo';
import { api, until, type TestServer } from './harness';
import { button, openCall, openDemo, PHONE, place, WIDE } from './pages';

// A day in a cabinet without a network: the application opens, the plan is read and changed, what is done waits, and
// comes to the server once.

/** Until the browser has kept the application's files. */
const isKept = (page: Page): Promise<void> =>
  expect
    .poll(
      () =>
        page.evaluate(async () => {
          const known = await navigator.serviceWorker.getRegistration();
          return known?.active?.state;
        }),
      { timeout: 60_000 },
    )
    .toBe('activated');

async function rename(page: Page, from: string, to: string): Promise<void> {
  await button(page, from).first().click();
  await button(page, 'Change name or address').click();
  await page.getByLabel('What people call it').fill(to);
  await button(page, 'Save').click();
  await expect(page.getByRole('heading', { name: to })).toBeVisible();
}

const jobIn = (page: Page): string => /\/job\/([^/]+)/.exec(page.url())?.[1] ?? '';

async function titlesOf(server: TestServer, job: string): Promise<readonly unknown[]> {
  const { things } = await api<PlanView>(server, 'GET', `/jobs/${job}/plan`);
  return things.device.map((one) => one['title']);
}

test('without a network it opens, is worked with, and what was done arrives once', async ({
  page: first,
  server,
  context,
}) => {
  await openDemo(first, server);
  const job = jobIn(first);
  await place(first, 'Assign').click();
  await expect(button(first, 'Start listening')).toBeVisible();
  await place(first, 'Plan').click();
  await isKept(first);
  const before = await api<RevisionView[]>(server, 'GET', `/jobs/${job}/revisions`);
  await server.kill();
  await first.close();

  const page = await context.newPage();
  await page.setViewportSize(PHONE);
  await page.goto(`${server.url}/job/${job}/plan`);
  await expect(page.getByText('! No server')).toBeVisible();
  await expect(page.getByText(/as of \d\d:\d\d:\d\d/)).toBeVisible();
  await rename(page, 'Sludge valve block', 'Sludge valves, west');
  await expect(page.getByText('1 act waits here until the server answers')).toBeVisible();
  await openCall(page, 'Inspection camera');
  await page.getByLabel(/^Paste what its page shows/).fill('address 10.1.2.3');
  await button(page, 'Hold it against the plan').click();
  await expect(page.getByText('Kept here until the server answers')).toBeVisible();
  await page.close();

  // The next page has it all, and says what waits.
  const next = await context.newPage();
  await next.setViewportSize(PHONE);
  await next.goto(`${server.url}/job/${job}/plan`);
  await expect(next.getByText('2 acts wait here until the server answers')).toBeVisible();
  await expect(button(next, 'Sludge valves, west').first()).toBeVisible();
  await button(next, 'Look').click();
  await expect(next.getByText('read off it: address 10.1.2.3 · Inspection camera')).toBeVisible();
  await expect(next.getByText('It goes out by itself', { exact: false })).toBeVisible();
  for (const size of [PHONE, WIDE]) {
    await next.setViewportSize(size);
    expect(await findings(next)).toEqual([]);
  }

  await server.restart();
  await expect(next.getByText('Nothing waits.', { exact: false })).toBeVisible();
  expect(await titlesOf(server, job)).toContain('Sludge valves, west');
  const after = await api<RevisionView[]>(server, 'GET', `/jobs/${job}/revisions`);
  expect(after).toHaveLength(before.length + 1);
  const { things } = await api<PlanView>(server, 'GET', `/jobs/${job}/plan`);
  const camera = things.device.find((one) => one['title'] === 'Inspection camera');
  const at = things.interface.find((one) => one['deviceId'] === camera?.id)?.id;
  const seen = await api<EvidenceView[]>(server, 'GET', `/jobs/${job}/interfaces/${at}/evidence`);
  expect(seen.filter(({ kind }) => kind === 'read-otherwise')).toHaveLength(1);
});

test('what somebody else changed meanwhile is shown beside it, and one is chosen', async ({
  page,
  server,
  context,
}) => {
  await openDemo(page, server);
  const job = jobIn(page);
  const { things } = await api<PlanView>(server, 'GET', `/jobs/${job}/plan`);
  const valves = things.device.find((one) => one['title'] === 'Sludge valve block');
  await isKept(page);
  await context.setOffline(true);
  await rename(page, 'Sludge valve block', 'Sludge valves, west');
  await expect(page.getByText('1 act waits here until the server answers')).toBeVisible();
  await api(server, 'POST', `/jobs/${job}/edits`, {
    why: 'from the office',
    edits: [
      {
        ...{ op: 'set', type: 'device', id: valves?.id, field: 'title' },
        ...{ from: 'Sludge valve block', to: 'Sludge valves, east' },
      },
    ],
  });
  await context.setOffline(false);
  await expect(page.getByText('1 act was refused when sent', { exact: false })).toBeVisible();
  await button(page, 'Look').click();
  await page.getByText('Mine: Sludge valves, west').click();
  await button(page, 'Write what I chose').click();
  await expect(page.getByText('Nothing waits.', { exact: false })).toBeVisible();
  await until('the plan has what was chosen', async () =>
    (await titlesOf(server, job)).includes('Sludge valves, west'),
  );
});
