import { expect, type Page } from '@playwright/test';
import { bigJob } from './crowd';
import { test } from './demo';
import { goTo, PHONE } from './pages';

// A plant of many devices on a phone: what is drawn grows with the screen, and not with the plant.

test.use({ viewport: PHONE });

const DEVICES = 1200;
/** The twelfth of the last subnet, as many as are shown at first. */
const LAST_OF_PLAN = 'd1131';
/** Lines that a phone shows, and some more at both ends. */
const MOST_LINES = 40;

// Programs for the page are texts: a function of ours would call helpers that the page does not have.
const TO_THE_END = `
  for (let one = document.querySelector('[role=listitem]'); one; one = one.parentElement)
    if (one.scrollHeight > one.clientHeight && getComputedStyle(one).overflowY === 'auto')
      one.scrollTop = one.scrollHeight;`;

/** Down to the end of what scrolls, which grows while it is drawn. */
async function toTheEnd(page: Page): Promise<void> {
  for (let turn = 0; turn < 4; turn += 1) {
    await page.evaluate(TO_THE_END);
    await page.waitForTimeout(150);
  }
}

test('phone: of a plant of 1,200 devices only what is seen is drawn, first to last', async ({
  page,
  server,
}) => {
  const id = await bigJob(server, DEVICES);
  const lines = page.getByRole('listitem');
  for (const [path, words, last] of [
    ['plan', 'Look up a device, a name or an address', LAST_OF_PLAN],
    ['assign', `${DEVICES} calls left`, `d${DEVICES - 1}`],
    ['prove', `0 of ${DEVICES} devices proven`, `d${DEVICES - 1}`],
  ] as const) {
    await goTo(page, `${server.url}/job/${id}/${path}`);
    await expect(page.getByText(words)).toBeVisible();
    await expect(lines.first()).toBeVisible();
    expect(await lines.count()).toBeLessThan(MOST_LINES);
    await expect(async () => {
      await toTheEnd(page);
      await expect(page.getByText(new RegExp(`\\b${last}$`)).last()).toBeAttached({
        timeout: 1000,
      });
    }).toPass({ timeout: 150_000 });
    expect(await lines.count()).toBeLessThan(MOST_LINES);
    expect(await page.locator('*').count()).toBeLessThan(9000);
  }
});
