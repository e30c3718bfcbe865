import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, expect as within, type Page } from '@playwright/test';
import { letBrowserIn, startServer, type TestServer } from './harness';
import {
  atCabinet,
  button,
  holdLabel,
  openDemo,
  PHONE,
  pick,
  place,
  powerCycle,
  WIDE,
  openTool,
} from './pages';
import { CHROMIUM } from './playwright.config';

// npm run screenshots: the pictures of docs/screenshots, made from the demo data by walking the way
// of a technician.

/** A busy machine takes its time. */
const expect = within.configure({ timeout: 90_000 });

const FOLDER = join(__dirname, '../docs/screenshots');

async function shoot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(400);
  await page.screenshot({ path: join(FOLDER, `${name}.png`) });
}

async function phone(page: Page, server: TestServer): Promise<void> {
  await page.setViewportSize(PHONE);
  await page.goto(server.url);
  await page.getByLabel('Your name, written beside everything you decide').fill('Mara Quist');
  await shoot(page, 'jobs');
  await openDemo(page, server);
  await shoot(page, 'plan');
  await button(page, 'Add devices').click();
  await pick(page, 'Kind', 'Drum drive M');
  await page.getByLabel('Cabinet').fill('FH2');
  await page.getByLabel('How many').fill('2');
  await page.getByLabel('Address').nth(1).fill('172.22.40.86');
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await expect(page.getByText('as “winch-b”')).toBeVisible({ timeout: 40_000 });
  await shoot(page, 'assign');
  await button(page, 'Drum filter drive 2').click();
  await holdLabel(page, '02:4c:7a:1d:80:03', '02-4C-7A-1D-80-D3');
  await shoot(page, 'label-check');
  await place(page, 'Assign').click();
  await button(page, 'Inspection camera').click();
  await button(page, 'Look for it at 192.168.77.10').click();
  await page.getByLabel('Type the MAC from the label, in any notation').fill('02-4C-7A-90-3A-C4');
  await button(page, 'Bind this MAC').click();
  await expect(button(page, 'Open its page')).toBeVisible();
  await shoot(page, 'web-page');
  await place(page, 'Assign').click();
  await button(page, 'Oxygen valve block').click();
  await holdLabel(page, '02:4c:7a:40:51:62', '02-4C-7A-40-51-62');
  await button(page, 'Bind and give 172.22.40.104').click();
  await expect(button(page, 'Tell it to keep the address')).toBeVisible({ timeout: 60_000 });
  await button(page, 'Tell it to keep the address').click();
  await button(page, 'Now cut its power and watch').click();
  await powerCycle(page, 'Oxygen valve block', async () => {
    await expect(page.getByText('Waiting to see it back')).toBeVisible();
  });
  await button(page, 'Prove it: ARP and ping').click();
  await expect(page.getByLabel('stage: proven')).toBeVisible();
  await place(page, 'Prove').click();
  await button(page, /^Prove \d+ devices/).click();
  await expect(page.getByText('Nobody planned them', { exact: false })).toBeVisible({
    timeout: 40_000,
  });
  await expect(button(page, /^Prove \d+ devices/)).toBeVisible({ timeout: 20_000 });
  await button(page, 'Fall silent')
    .click({ timeout: 1000 })
    .catch(() => undefined);
  await shoot(page, 'prove');
  await button(page, 'Backwash drive').click();
  await expect(page.getByText('Likely causes, the likeliest first')).toBeVisible();
  await shoot(page, 'causes');
  await place(page, 'Prove').click();
  await openTool(page, 'Routes there and back');
  await button(page, 'Controller, filter hall to Feeding robot drive').click();
  await expect(page.getByText('It arrives, but cannot answer')).toBeVisible();
  await shoot(page, 'there-and-back');
  await place(page, 'Hand over').click();
  await shoot(page, 'hand-over');
  await atCabinet(page, async (cabinet) => {
    await cabinet.setViewportSize(PHONE);
    await cabinet.getByText('Drum filter drive 1', { exact: true }).scrollIntoViewIfNeeded();
    await shoot(cabinet, 'cabinets');
  });
}

/** An address is typed that another device has. */
async function clash(page: Page): Promise<void> {
  const line = page.getByRole('row').filter({ hasText: 'Drum filter drive 2' });
  await line.getByRole('gridcell').nth(3).click();
  await page.keyboard.type('.88');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/is given twice/)).toBeVisible();
}

const LIST = `Tag;Cabinet;IP address;Type;Remark
Sump pump 1;SP1;172.22.40.81;Drum drive M;north
Sump pump 2;SP1;172.22.40.82;Drum drive M;
Sump pump 3;SP1;172.22.40.999;Drum drive M;
Sump valves;SP1;;Valve block, 16 coils;
`;

async function planWide(page: Page): Promise<void> {
  await button(page, 'Devices from a list').click();
  const chooser = page.waitForEvent('filechooser');
  await button(page, 'Choose a file').click();
  const buffer = Buffer.from(LIST);
  await (await chooser).setFiles({ name: 'sump.csv', mimeType: 'text/csv', buffer });
  await expect(page.getByText('4 lines, 2 of them good')).toBeVisible();
  await shoot(page, 'list-wide');
  await place(page, 'Plan').click();
  await button(page, 'Split a block').click();
  await page.getByLabel('Block with prefix length').fill('172.22.48.0/22');
  await page.getByLabel('Need 1').fill('Hatching');
  await page.getByLabel('Devices').fill('140');
  await button(page, 'Another need').click();
  await page.getByLabel('Need 2').fill('Laboratory');
  await page.getByLabel('Devices').nth(1).fill('24');
  await shoot(page, 'split-wide');
}

async function planPhone(page: Page): Promise<void> {
  await page.setViewportSize(PHONE);
  await place(page, 'Plan').click();
  await button(page, /^\d+ wrong/).click();
  await expect(page.getByText(/is given twice/)).toBeVisible();
  await shoot(page, 'snags');
  await place(page, 'Plan').click();
  await page.getByRole('link', { name: 'Filter hall, address by address' }).click();
  await page.getByRole('gridcell', { name: /172\.22\.40\.88:/ }).click();
  await shoot(page, 'subnet');
}

/** The hall that is still being planned: its sheet with its mistakes, and switches as they must stand. */
async function hall(page: Page, server: TestServer): Promise<void> {
  await page.setViewportSize(WIDE);
  await page.goto(server.url);
  await button(page, 'Tern Cove, second hall').click();
  await expect(page.getByRole('gridcell', { name: 'Tank conveyor drive 1' })).toBeVisible();
  await shoot(page, 'plan-wide');
  await page.setViewportSize(PHONE);
  await page.getByLabel('Look up a device, a name or an address').fill('Tank station 3');
  await button(page, 'Tank station 3').click();
  await button(page, 'They stand otherwise: read them').click();
  await button(page, '×100 one up').click();
  await page.getByText('Set the drawing as you see').scrollIntoViewIfNeeded();
  await shoot(page, 'switches');
  await page.goto(server.url);
  await button(page, 'Tern Cove hatchery').click();
}

async function wide(page: Page): Promise<void> {
  await page.setViewportSize(WIDE);
  await place(page, 'Plan').click();
  await clash(page);
  await planWide(page);
  await place(page, 'Plan').click();
  await place(page, 'Assign').click();
  await button(page, 'Drum filter drive 1').click();
  await holdLabel(page, '02:4c:7a:1d:80:11', '02-4C-7A-1D-80-11');
  await place(page, 'Prove').click();
  await shoot(page, 'prove-wide');
  await openTool(page, 'The site as it is connected');
  await pick(page, 'From', 'Controller, filter hall');
  await pick(page, 'To', 'Oxygen valve block');
  await shoot(page, 'picture-wide');
}

async function night(page: Page, server: TestServer): Promise<void> {
  await page.setViewportSize(PHONE);
  await page.goto(server.url);
  await page.getByRole('radio', { name: 'Night: for a dark cabinet' }).click();
  await button(page, 'Tern Cove hatchery').click();
  await place(page, 'Assign').click();
  await button(page, 'Oxygen valve block').or(page.getByText('Then')).first().waitFor();
  await shoot(page, 'assign-night');
}

async function main(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const server = await startServer('screenshots', { demo: true });
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext()).newPage();
    await letBrowserIn(page.context(), server);
    await phone(page, server);
    await hall(page, server);
    await wide(page);
    await planPhone(page);
    await night(page, server);
  } finally {
    await browser.close();
    await server.stop();
  }
}

void main();
