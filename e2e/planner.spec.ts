import { expect, type Page } from '@playwright/test';
import { test } from './demo';
import { letBrowserIn, type TestServer } from './harness';
import { button, giveFile, PHONE, WIDE, goTo } from './pages';

// The planner's half: from IT's block and a list to a plan without a snag, at a desk and on a phone.

test.use({ demo: false });

async function beginJob(page: Page, server: TestServer, person: string): Promise<void> {
  await page.setViewportSize(WIDE);
  await page.goto(server.url);
  await page.getByLabel('Your name, written beside everything you decide').fill(person);
  await page.getByLabel('A new job: the site or machine').fill('Gull Point ferry');
  await button(page, 'Begin this job').click();
  await expect(page.getByRole('heading', { name: 'Gull Point ferry' })).toBeVisible();
}

async function splitBlock(page: Page): Promise<void> {
  await button(page, 'Split a block').click();
  await page.getByLabel('Block with prefix length').fill('10.44.0.0/21');
  await page.getByLabel('Need 1').fill('Car deck');
  await page.getByLabel('Devices').fill('60');
  await page.getByText('a whole /24').click();
  await button(page, 'Another need').click();
  await page.getByLabel('Need 2').fill('Winches');
  await page.getByLabel('Devices').nth(1).fill('20');
  // A whole /24, then 25 hosts in a /27, each where the largest free part stays.
  await expect(page.getByLabel('10.44.0.0/24')).toBeVisible();
  await expect(page.getByLabel('10.44.1.0/27')).toBeVisible();
  await button(page, 'Make 2 subnets').click();
  await expect(page.getByRole('radio', { name: /^Winches/ })).toBeVisible();
}

/** Puts a text down in the sheet as a paste would. */
async function paste(page: Page, text: string): Promise<void> {
  await page.getByRole('grid', { name: 'Devices' }).evaluate((grid, cells) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', cells);
    grid.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    );
  }, text);
}

const KINDS = ['Pump drive D4', 'Block I/O station 20', 'Valve block, 16 coils'];
const LIST = [
  'Device\tCabinet\tType\tNetwork',
  'Bridge controller\tCD1\tMachine controller K\tCar deck',
  ...Array.from(
    { length: 49 },
    (_, i) => `Deck device ${i + 1}\tCD${(i % 4) + 1}\t${KINDS[i % 3]}\tCar deck`,
  ),
  ...Array.from({ length: 10 }, (_, i) => `Winch ${i + 1}\tWN1\tPump drive D4\tWinches`),
];

const cell = (page: Page, name: string | RegExp) => page.getByRole('gridcell', { name }).first();
const lines = (page: Page, count: number) =>
  expect(page.getByText(new RegExp(`^${count} lines`))).toBeVisible();

test('wide: a block, a list, copies, snags mended, a revision named; phone: one corrected', async ({
  page,
  server,
}) => {
  await beginJob(page, server, 'Mara Quist');
  await splitBlock(page);
  await test.step('sixty devices by paste, with one line that cannot be taken', async () => {
    await paste(page, [...LIST, 'Odd one\tCD1\tno such kind\tCar deck'].join('\r\n'));
    await expect(page.getByRole('heading', { name: '1 cell cannot be taken' })).toBeVisible();
    await expect(page.getByText('No kind is called “no such kind”.')).toBeVisible();
    await lines(page, 0);
    await button(page, 'Take the other 60 lines').click();
    await lines(page, 60);
  });
  await test.step('keys: an address given twice is told while typing, mended by its snag', async () => {
    await page.getByLabel('Find in the sheet').fill('Winch');
    await lines(page, 10);
    await cell(page, 'Winch 2').click();
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('ArrowRight');
    const taken = await page.getByRole('row').nth(1).getByRole('gridcell').nth(3).innerText();
    await page.keyboard.type(`.${taken.split('.')[3]}`);
    await expect(page.getByText(/is given to Winch 1/)).toBeVisible();
    await page.keyboard.press('Enter');
    // On the side, and for a moment as what came of the edit.
    await expect(
      page.getByText(`${taken} is given twice: Winch 1 and Winch 2.`).first(),
    ).toBeVisible();
    await button(page, /^Give Winch 2 10\.44\.1\./).click();
    await expect(page.getByText(/is given twice/)).toBeHidden();
    await page.getByLabel('Find in the sheet').fill('');
  });
  await test.step('count on: cabinets by series, taken back by one undo', async () => {
    await page.getByRole('radio', { name: /^Winches/ }).click();
    await cell(page, 'Winch 1').click();
    await page.keyboard.press('ArrowRight');
    for (let i = 0; i < 9; i += 1) await page.keyboard.press('Shift+ArrowDown');
    await button(page, 'Count on').click();
    await expect(cell(page, 'WN10')).toBeVisible();
    await button(page, 'Undo').click();
    await expect(cell(page, 'WN10')).toBeHidden();
    await page.getByRole('radio', { name: /^All/ }).click();
  });
  await test.step('a machine four times more, in a realm of its own each', async () => {
    await button(page, 'Copy a machine').click();
    await page.getByRole('checkbox', { name: 'Winches' }).click();
    await page.getByLabel('How many copies').fill('4');
    await page.getByText('Same addresses, own realm').click();
    await expect(page.getByText('Nothing new is wrong with it.')).toBeVisible();
    await button(page, 'Add 40 devices').click();
    await lines(page, 100);
    await expect(page.getByRole('heading', { name: /wrong/ })).toBeHidden();
  });
  await test.step('the revision that goes to site gets its name', async () => {
    await button(page, 'Revisions').click();
    await page
      .getByRole('button', { name: /^Revision \d+$/ })
      .first()
      .click();
    await page.getByLabel(/^Name of revision/).fill('as issued to site');
    await button(page, 'Name it').click();
    await expect(page.getByText('as issued to site')).toBeVisible();
  });
  await test.step('phone: looked up, corrected, and seen to be checked', async () => {
    await page.setViewportSize(PHONE);
    await goTo(page, page.url().replace(/revisions.*/, 'plan'));
    await page.getByLabel('Look up a device, a name or an address').fill('deck device 7');
    await button(page, 'Deck device 7').click();
    await button(page, 'Change name or address').click();
    await page.getByLabel('Address').fill('10.44.0.999');
    await expect(page.getByText('999 is above 255')).toBeVisible();
    await page.getByLabel('Address').fill('10.44.0.2');
    await button(page, 'Save').click();
    await expect(page.getByLabel('10.44.0.2').first()).toBeVisible();
    await expect(page.getByText(/has 10\.44\.0\.2, of the band/)).toBeVisible();
  });
  await test.step('everything else of it: a serial line, by the form of its shape', async () => {
    await button(page, 'Everything of this device').click();
    await button(page, 'Serial lines').click();
    await button(page, 'Add to lines').click();
    await page.getByLabel('settings').fill('9600 8N1');
    await button(page, 'Save').click();
    // The form goes once it is kept; the heading stands there before, too.
    await expect(page.getByLabel('settings')).toBeHidden();
    await expect(page.getByRole('heading', { name: 'Deck device 7' })).toBeVisible();
    const plan = page.url().replace(/\/job\/([^/]+).*/, '/api/jobs/$1/plan.json');
    expect(await (await page.request.get(plan)).text()).toContain('"settings":"9600 8N1"');
  });
});

test('two people, one field: both stand side by side, and one is chosen', async ({
  page,
  server,
  context,
}) => {
  await beginJob(page, server, 'Mara Quist');
  await splitBlock(page);
  await paste(page, LIST.slice(0, 12).join('\r\n'));
  await lines(page, 11);
  const other = await context.newPage();
  const open = async (one: Page) => {
    await one.setViewportSize(PHONE);
    await one.goto(page.url());
    await button(one, 'Deck device 1').click();
    await button(one, 'Change name or address').click();
  };
  await open(other);
  await open(page);
  await other.getByLabel('What people call it').fill('Ramp drive');
  await button(other, 'Save').click();
  await expect(other.getByRole('heading', { name: 'Ramp drive' })).toBeVisible();
  await page.getByLabel('What people call it').fill('Bow ramp drive');
  await page.getByLabel('Address').fill('10.44.0.99');
  await button(page, 'Save').click();
  await expect(page.getByText('It was Deck device 1.')).toBeVisible();
  await expect(button(page, 'Write what I chose')).toBeDisabled();
  await page.getByText('Theirs: Ramp drive').click();
  await button(page, 'Write what I chose').click();
  // Theirs stays, and what nobody else touched is mine.
  await expect(page.getByRole('heading', { name: 'Ramp drive' })).toBeVisible();
  await expect(page.getByLabel('10.44.0.99').first()).toBeVisible();
});

test('two people, two devices, one address: both changes are kept, and both people are told', async ({
  page,
  server,
  browser,
}) => {
  await beginJob(page, server, 'Mara Quist');
  await splitBlock(page);
  await paste(page, LIST.slice(0, 12).join('\r\n'));
  await lines(page, 11);
  const theirs = await browser.newContext();
  await letBrowserIn(theirs, server);
  const other = await theirs.newPage();
  await other.setViewportSize(PHONE);
  await other.goto(server.url);
  await other.getByLabel('Your name, written beside everything you decide').fill('Tilda Brook');
  await other.goto(page.url());
  await button(other, 'Deck device 1').click();
  await button(other, 'Change name or address').click();
  await other.getByLabel('Address').fill('10.44.0.77');
  await button(other, 'Save').click();
  await expect(other.getByLabel('10.44.0.77').first()).toBeVisible();
  // A sheet writes what is typed: the same address on another device.
  await cell(page, /^10\.44\.0\.101/).click();
  await page.keyboard.type('10.44.0.77');
  await page.keyboard.press('Enter');
  await expect(page.getByText('You and Tilda Brook together made this wrong')).toBeVisible();
  await expect(other.getByText('You and Mara Quist together made this wrong')).toBeVisible();
  await expect(other.getByText('10.44.0.77 is given twice').first()).toBeVisible();
  await button(other, 'See it').click();
  await button(page, 'Understood').click();
  await expect(page.getByText('You and Tilda Brook together made this wrong')).toBeHidden();
  await theirs.close();
});

test('a plan goes out as a file and another job begins with it; one with a fault is refused whole', async ({
  page,
  server,
}) => {
  await beginJob(page, server, 'Mara Quist');
  await splitBlock(page);
  await paste(page, LIST.slice(0, 12).join('\r\n'));
  await lines(page, 11);
  const file = await page.request.get(`${page.url().replace('/job/', '/api/jobs/')}.json`);
  const text = await file.text();
  const begin = async (name: string, content: string) => {
    await page.goto(server.url);
    await giveFile(page, 'Begin with a plan file …', { name, bytes: Buffer.from(content) });
  };
  await begin('bad.json', text.replace('"10.44.1.0/27"', '"10.44.1.1/27"'));
  await expect(page.getByText(/10\.44\.1\.1\/27/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Gull Point ferry', exact: true })).toHaveCount(1);
  await begin('good.json', text);
  await lines(page, 11);
  const again = await page.request.get(`${page.url().replace('/job/', '/api/jobs/')}.json`);
  expect(await again.text()).toBe(text.replace('Gull Point ferry', 'Gull Point ferry 2'));
});
