import { expect } from '@playwright/test';
import { test } from './demo';
import { button, goTo, openDemo, PHONE, place } from './pages';

// Pages that fall, and pages that are not there.

test('a page that throws falls alone: the wire stands above it, another page goes, and it is tried again', async ({
  page,
  server,
  errors,
}) => {
  await page.setViewportSize(PHONE);
  await openDemo(page, server);
  const root = page.url().replace(/\/plan$/, '');
  // As a server of another version might answer.
  const odd = [{ number: 1, person: 'Mara', what: 'made', count: 1, undoes: null, name: null }];
  await page.route('**/api/jobs/*/revisions', (route) => route.fulfill({ json: odd }));
  await goTo(page, `${root}/revisions`);
  await expect(
    page.getByRole('heading', { name: 'This page met an error of its own' }),
  ).toBeVisible();
  await expect(page.getByText(/silent, not listening/).first()).toBeVisible();
  await place(page, 'Assign').click();
  await expect(button(page, 'Start listening')).toBeVisible();
  await goTo(page, `${root}/revisions`);
  await expect(button(page, 'Try again')).toBeVisible();
  await page.unroute('**/api/jobs/*/revisions');
  await button(page, 'Try again').click();
  await expect(page.getByRole('heading', { name: 'Revisions' })).toBeVisible();
  errors.length = 0; // the browser tells of what was thrown, as it has to
});

test('a page that is not there says so, and leads on', async ({ page, server, errors }) => {
  await page.setViewportSize(PHONE);
  await openDemo(page, server);
  const root = page.url().replace(/\/plan$/, '');
  await goTo(page, `${root}/plann`);
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await button(page, 'The plan of this job').click();
  await expect(page).toHaveURL(/\/plan$/);
  await goTo(page, `${server.url}/nowhere/at/all`);
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await button(page, 'All jobs').click();
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  expect(errors).toEqual([]);
});
