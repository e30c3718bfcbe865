import { expect } from '@playwright/test';
import { test } from './demo';
import { button, giveFile, openDemo, pick, WIDE, goTo } from './pages';

// A list from somebody else's spreadsheet: refused, corrected, taken; then its mistakes mended at once.

const OLD_WORKBOOK = Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]);
const LIST = [
  'Tag;Where it is;Address;Type',
  ...[120, 121, 122].map((last) => `Valve ${last};SL1;172.22.41.${last};Valve block, 16 coils`),
  'Valve twice;SL1;172.22.41.120;Valve block, 16 coils',
  'Valve thrice;SL1;172.22.41.120;Valve block, 16 coils',
  'Valve typo;SL1;172.22.41.1200;Valve block, 16 coils',
  'Valve of nobody;SL1;172.22.41.105;a kind that is none',
].join('\n');

test('wide: a list is refused, matched, taken; its snags are mended at once; lines are taken out', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  await openDemo(page, server);
  const job = page.url().replace(/(\/job\/[^/]+).*/, '$1');

  await test.step('what is no list is refused, with why, and nothing is taken', async () => {
    await goTo(page, `${job}/import`);
    for (const [name, bytes, told] of [
      ['empty.csv', Buffer.alloc(0), 'empty.csv holds no list'],
      ['old.xls', OLD_WORKBOOK, 'old.xls is a workbook of before 2007.'],
      ['picture.csv', Buffer.from([0x89, 0, 1, 2]), 'picture.csv is no text.'],
      ['half.xlsx', Buffer.from('PK\u0003\u0004 cut off'), 'half.xlsx is no whole workbook'],
      ['quote.csv', Buffer.from('a,b\n"open,1\n'), 'quote.csv'],
    ] as const) {
      await giveFile(page, 'Choose a file', { name, bytes });
      await expect(page.getByText(told)).toBeVisible();
    }
  });

  await test.step('a column that was not guessed is said; bad cells are named by their line', async () => {
    await giveFile(page, 'Choose a file', { name: 'sorting.csv', bytes: Buffer.from(LIST) });
    await expect(page.getByText('7 lines, 5 of them good')).toBeVisible();
    await expect(page.getByText('“172.22.41.1200”')).toBeVisible();
    await expect(page.getByText('No kind is called “a kind that is none”.')).toBeVisible();
    await expect(page.getByText('They would bring 1 wrong snag into the plan.')).toBeVisible();
    await pick(page, 'Where it is', 'cabinet');
    await button(page, 'Add the other 5 devices').click();
    await page.getByLabel('Find in the sheet').fill('Valve t');
    await expect(page.getByRole('gridcell', { name: 'Valve thrice' })).toBeVisible();
    await expect(page.getByText('172.22.41.120 is given 3 times').first()).toBeVisible();
  });

  await test.step('all of one cause are mended in one revision', async () => {
    await goTo(page, `${job}/snags`);
    await button(page, /^Mend all of these/)
      .first()
      .click();
    await expect(page.getByText('2 snags would be mended')).toBeVisible();
    await button(page, 'Mend 2 snags').click();
    await expect(page.getByText('is given 3 times')).toHaveCount(0);
    await expect(page.getByText('is given twice')).toBeHidden();
  });

  await test.step('chosen lines are taken out, and come back by undo', async () => {
    await goTo(page, `${job}/plan`);
    await page.getByLabel('Find in the sheet').fill('SL1');
    await page.getByRole('gridcell', { name: 'Valve twice' }).click();
    await page.keyboard.press('Shift+ArrowDown');
    await button(page, 'Take out').click();
    await button(page, 'Yes, take out').click();
    await expect(page.getByRole('gridcell', { name: 'Valve twice' })).toBeHidden();
    await expect(page.getByRole('gridcell', { name: 'Valve thrice' })).toBeHidden();
    await button(page, 'Undo').click();
    await expect(page.getByRole('gridcell', { name: 'Valve thrice' })).toBeVisible();
  });
});
