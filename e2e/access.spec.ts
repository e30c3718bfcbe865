import { expect } from '@playwright/test';
import { findings } from './axe';
import { test } from './demo';
import { jobView } from './jobs';
import { button, goTo, openDemo, PAGES, PHONE, place, WIDE } from './pages';

// Hands, eyes and keys: every page by axe-core (WCAG 2.2 A and AA), and the way through them by keys alone.

test('each page has a name, one first heading, one main part, and nothing serious by axe-core', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await openDemo(page, server);
  const root = page.url().replace(/\/plan$/, '');
  const id = root.replace(/.*\//, '');
  const { devices, subnets } = await jobView(server, id);
  const at = devices[0]?.interfaces[0]?.id;
  const own = [`device/${devices[0]?.id}`, `call/${at}`, `subnet/${subnets[0]?.id}`];
  const wrong: string[] = [];
  const names = new Map<string, string>();
  for (const path of [...PAGES, ...own]) {
    await goTo(page, `${root}/${path}`);
    for (const size of [PHONE, WIDE]) {
      await page.setViewportSize(size);
      const shown = page.getByRole('heading').first().waitFor({ timeout: 15_000 });
      if (
        await shown.then(
          () => false,
          () => true,
        )
      )
        wrong.push(`${path}: no heading`);
      // The sheet beside is loaded when it is first looked at, and has the first heading.
      const first = page.getByRole('heading', { level: 1 });
      await first
        .first()
        .waitFor({ timeout: 15_000 })
        .catch(() => undefined);
      const firsts = await first.count();
      const mains = await page.getByRole('main').count();
      const where = `${path} ${size.width}`;
      if (firsts !== 1) wrong.push(`${where}: ${firsts} first headings`);
      if (mains !== 1) wrong.push(`${where}: ${mains} main parts`);
      for (const one of await findings(page)) wrong.push(`${where}: ${one}`);
    }
    const name = await page.title();
    if (name === 'Ipsonomo') wrong.push(`${path}: it has no name`);
    names.set(name, path);
  }
  expect(wrong).toEqual([]);
  // Nearly each is called otherwise: a tab is found again.
  expect(names.size).toBeGreaterThan(PAGES.length - 4);
});

test('by keys alone: past the bars, from place to place, out of the sheet, among choices', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  await openDemo(page, server);
  await goTo(page, page.url());
  await expect(page.getByRole('grid')).toBeVisible();
  const tab = (times = 1) =>
    Array.from({ length: times }).reduce<Promise<void>>(
      (before) => before.then(() => page.keyboard.press('Tab')),
      Promise.resolve(),
    );
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('role') ?? '');
  // The first that Tab reaches leads past what stands around every page.
  await tab();
  await expect(button(page, 'To the page itself')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  // Into the sheet, through its cells, and out of it again.
  await page.getByRole('grid').focus();
  await tab(3);
  expect(await focused()).toBe('grid');
  await page.keyboard.press('Escape');
  await tab();
  expect(await focused()).not.toBe('grid');
  // A place is a link: Enter goes there.
  await place(page, 'Assign').focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/assign$/);
  await expect(place(page, 'Assign')).toHaveAttribute('aria-current', 'page');
  await expect(place(page, 'Assign')).toHaveAttribute('href', /\/job\/[^/]+\/assign$/);
  // Of choices one is reached by Tab, arrows go to the others, Space chooses.
  await goTo(page, `${page.url().replace(/\/assign$/, '')}/codes`);
  const choices = page.getByRole('radio');
  await choices.first().focus();
  await page.keyboard.press('ArrowDown');
  await expect(choices.nth(1)).toBeFocused();
  await expect(choices.nth(1)).toHaveAttribute('aria-checked', 'true');
  await page.keyboard.press('ArrowUp');
  await expect(choices.first()).toHaveAttribute('aria-checked', 'true');
});

test('a button that does its work and goes leaves the keys on its page', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  await button(page, 'Start listening').focus();
  await page.keyboard.press('Enter');
  await expect(button(page, 'Start listening')).toHaveCount(0);
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
});

test('at four times the size the bars scroll along, and the page has the window', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await page.setViewportSize({ width: 320, height: 200 });
  const box = await page.getByRole('main').boundingBox();
  expect(box?.height).toBeGreaterThanOrEqual(200);
});

test('by keys alone: anything of a job is found from every page', async ({ page, server }) => {
  await page.setViewportSize(WIDE);
  await openDemo(page, server);
  await place(page, 'Prove').click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByLabel(/^A device, any part of an address/)).toBeFocused();
  await page.keyboard.type('.104');
  const found = page.getByRole('link', { name: /^Oxygen valve block/ });
  await expect(found).toBeVisible();
  // Slash is a letter while something is typed; Ctrl-K is not.
  await page.keyboard.type('/');
  await expect(page.getByText('Nothing in this job goes by that.')).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.press('Backspace');
  await found.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/device\//);
  await expect(page.getByRole('heading', { name: 'Oxygen valve block' }).first()).toBeVisible();
});
