import { expect } from '@playwright/test';
import { test } from './demo';
import {
  atCabinet,
  button,
  holdLabel,
  listenInDemo,
  openCall,
  openDemo,
  PHONE,
  place,
  stage,
} from './pages';

// Routes there and back: one that fails by the plan, cured there, walked on the practice site, cured there as well.

test.use({ viewport: PHONE });

test('a route that cannot answer: found, cured in the plan, walked, given anew, walked again', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Prove').click();
  await button(page, 'Routes there and back').click();
  await expect(page.getByRole('heading', { name: '5 of 6 connections work' })).toBeVisible();
  await button(page, 'Controller, filter hall to Feeding robot drive').click();
  await expect(page.getByText('It arrives, but cannot answer')).toBeVisible();
  await expect(page.getByLabel(/it ends back at Feeding robot drive/)).toBeVisible();
  await button(page, 'Correct the gateway to 172.22.41.1').click();
  await expect(page.getByText('It works, there and back')).toBeVisible();

  // The device knows nothing of that yet: it was given nothing at all.
  await button(page, 'Walk it').click();
  await expect(
    page.getByText(/gets as far as Router of the site, but Feeding robot/),
  ).toBeVisible();

  const walked = page.url();
  await atCabinet(page, async (cabinet) => {
    await cabinet.getByRole('radio', { name: 'Feeding switch' }).click();
  });
  await openCall(page, 'Feeding robot drive');
  await holdLabel(page, '02:4c:7a:22:06:11', '02-4C-7A-22-06-11');
  await button(page, 'Bind and give 172.22.41.80').click();
  await expect(stage(page, 'given')).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await cabinet.getByRole('radio', { name: 'Filter hall switch' }).click();
  });
  await page.goto(walked);
  await button(page, 'Walk it').click();
  await expect(page.getByText(/goes as the plan says, and the device answers/)).toBeVisible();
  await expect(page.getByRole('row')).toHaveCount(3);
});

test('a cold start: everything off and on, and the one that was never told to keep its address stands out', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await openCall(page, 'Oxygen valve block');
  await holdLabel(page, '02:4c:7a:40:51:62', '02-4C-7A-40-51-62');
  await button(page, 'Bind and give 172.22.40.104').click();
  await button(page, 'Tell it to keep the address').click();
  await expect(page.getByText('told to keep its address, and reads back so').first()).toBeVisible();
  await openCall(page, 'Sludge valve block');
  await holdLabel(page, '02:4c:7a:40:51:7b', '02-4C-7A-40-51-7B');
  await button(page, /^Bind and give/).click();

  await place(page, 'Prove').click();
  await button(page, 'Cold start').click();
  await button(page, 'Begin: fall silent and listen').click();
  await expect(page.getByText('Nothing is sent now.', { exact: false })).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Everything off').click();
    await expect(cabinet.getByText('lamp off').first()).toBeVisible();
    await button(cabinet, 'Everything on').click();
    await expect(cabinet.getByText('lamp off')).toHaveCount(0);
  });
  await button(page, 'It is on again').click();
  await expect(
    page.getByText(/asks for an address after .* it was not told to keep it/),
  ).toBeVisible();
  await expect(page.getByText(/^✓ back after .* with its address, by itself/)).toBeVisible();
  await button(page, 'All that will come is back').click();
  await expect(page.getByText(/1 of 2 bound devices did not come back by itself/)).toBeVisible();
  await button(page, 'Oxygen valve block').click();
  await expect(page.getByText(/^cold start: /).first()).toBeVisible();
});
