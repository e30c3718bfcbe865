import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { test } from './demo';
import {
  atCabinet,
  button,
  holdLabel,
  listenInDemo,
  openDemo,
  pick,
  place,
  powerCycle,
  saveFormat,
  WIDE,
} from './pages';

// The whole way of a technician on the practice site, with nothing but the interface: on a phone,
// then once on a wide screen.

async function plan(page: Page): Promise<void> {
  await button(page, 'Add a subnet').click();
  await page.getByLabel('Name', { exact: true }).fill('Laboratory');
  await page.getByLabel('Network with prefix length').fill('172.22.42.9/24');
  await expect(page.getByText('Its network is 172.22.42.0/24')).toBeVisible();
  await page.getByLabel('Network with prefix length').fill('172.22.40.0/22');
  await expect(page.getByText('172.22.40.0/22 overlaps Filter hall')).toBeVisible();
  await page.getByLabel('Network with prefix length').fill('172.22.42.0/24');
  await page.getByLabel('Gateway, if it has one').fill('172.22.42.1');
  await button(page, 'Add this subnet').click();
  await expect(page.getByRole('heading', { name: 'Laboratory' })).toBeVisible();

  await button(page, 'Add devices').click();
  await pick(page, 'Kind', 'Valve block, 16 coils');
  await pick(page, 'Subnet', 'Laboratory');
  await page.getByLabel('Cabinet').fill('LB1');
  await page.getByLabel('How many').fill('2');
  const addresses = page.getByLabel('Address', { exact: true });
  await expect(addresses.nth(0)).toHaveValue('172.22.42.100');
  await expect(addresses.nth(1)).toHaveValue('172.22.42.101');
  await expect(page.getByLabel('Host name', { exact: true }).nth(1)).toHaveValue('lb1-valves-2');
  for (const [typed, told] of [
    ['172.22.42.300', '300 is above 255'],
    ['172.22.42.100', '172.22.42.100 is given to a device above'],
    ['172.22.40.99', '172.22.40.99 is outside Laboratory'],
    ['172.22.42.255', 'is the broadcast address'],
  ] as const) {
    await addresses.nth(1).fill(typed);
    await expect(page.getByText(told)).toBeVisible();
    await expect(button(page, 'Add 2 devices')).toBeDisabled();
  }
  await addresses.nth(1).fill('172.22.42.107');
  await button(page, 'Add 2 devices').click();
  await expect(button(page, 'Valve block, 16 coils lb1-valves-2')).toBeVisible();
}

test('phone: plan, hear, bind, give, pin, prove, hand over', async ({ page, server }) => {
  await openDemo(page, server);
  await plan(page);

  // Assign: listening sends nothing and shows who asks.
  await place(page, 'Assign').click();
  await expect(page.getByRole('heading', { name: '30 calls left' })).toBeVisible();
  await button(page, 'Start listening').click();
  await expect(page.getByText('Strangers: heard, bound to nothing')).toBeVisible();
  await expect(page.getByText('as “winch-b”')).toBeVisible();
  await expect(page.getByText(/silent, listening/)).toBeVisible();

  // The label of the right device among several that ask alike.
  await button(page, 'Oxygen valve block').click();
  await holdLabel(page, '02:4c:7a:40:51:62', '02-4C-7A-40-51-99');
  await expect(page.getByText('This is another device.')).toBeVisible();
  await expect(button(page, /^Bind and give/)).toBeDisabled();
  await page.getByLabel('Type the MAC from the label, in any notation').fill('O2-4C-7A-4O-51-62');
  await expect(page.getByText('Label and wire agree.')).toBeVisible();
  await expect(page.getByText('O as 0')).toBeVisible();
  await button(page, 'Bind and give 172.22.40.104').click();

  // Given: seen by evidence, not by the answer alone. Then told to keep it.
  // The one that was bound, and two terminals by their names.
  await expect(page.getByText('Answering 3 devices', { exact: true })).toBeVisible();
  await expect(page.getByText(/\d+ min · as 172\.22\.40\.253/)).toBeVisible();
  await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
  await expect(page.getByText('told to keep its address, and reads back so').first()).toBeVisible();
  await button(page, 'Now cut its power and watch').click();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  await powerCycle(page, 'Oxygen valve block', () =>
    expect(page.getByText('Waiting to see it back')).toBeVisible(),
  );
  await button(page, 'Prove it: ARP and ping').click();
  await expect(page.getByText(/found as planned, ping/).first()).toBeVisible();

  // A reload at any step shows the same.
  await page.reload();
  await expect(page.getByText('Proven', { exact: true })).toBeVisible();
  await expect(page.getByLabel('stage: proven')).toBeVisible();

  // Prove: everything else is shown as expected against found.
  await button(page, 'Fall silent').click();
  await expect(page.getByText(/silent, listening/)).toBeVisible();
  await place(page, 'Prove').click();
  await button(page, 'Prove 30 devices').click();
  await expect(page.getByRole('heading', { name: '1 of 30 devices proven' })).toBeVisible();
  await expect(page.getByText('Nobody planned them', { exact: false })).toBeVisible();
  await expect(page.getByText('02:4c:7a:10:00:77', { exact: true }).first()).toBeVisible();

  // Hand over: RFC 4180.
  await place(page, 'Hand over').click();
  const csv = readFileSync(await saveFormat(page, 'Address list, CSV'), 'utf8');
  const lines = csv.split('\r\n');
  expect(lines).toHaveLength(32);
  expect(lines[0]?.split(',').slice(0, 2)).toEqual(['device', 'host name']);
  expect(lines.find((line) => line.startsWith('Oxygen valve block'))).toMatch(
    /172\.22\.40\.104,255\.255\.255\.0,172\.22\.40\.1,02:4c:7a:40:51:62,BootP,proven,"found as planned, ping [^"]*",\d{4}-\d\d-\d\d \d\d:\d\d$/,
  );
  await expect(
    page.getByText('Nothing changed since something was last handed over.'),
  ).toBeVisible();
});

// What is seen of it lasts until the device is given its address again: a second, ten times as fast no frame.
test.describe('in real time', () => {
  test.use({ pace: 1 });

  test('phone: a forgotten pinning is seen, an own step is not believed before the power cut', async ({
    page,
    server,
  }) => {
    await listenInDemo(page, server);
    await button(page, 'Filter hall station').click({ timeout: 120_000 });
    await holdLabel(page, '02:4c:7a:33:0c:15', '02:4c:7a:33:0c:15');
    await button(page, 'Bind and give 172.22.40.102').click();
    await button(page, 'Cut its power without it, and watch').click({ timeout: 120_000 });
    // It lasts until the device is given its address again: looked for at every frame, from before it can be.
    const gone = page.getByLabel(/given: contradicted, pinned: contradicted/).waitFor();
    await powerCycle(page, 'Filter hall station', () =>
      expect(page.getByText('Waiting to see it back')).toBeVisible(),
    );
    await expect(
      page.getByText('asked for an address again: the one it had is gone'),
    ).toBeVisible();
    await gone;

    // It is given again; this time its own step is done at the device.
    await expect(button(page, 'Done at the device')).toBeVisible({ timeout: 120_000 });
    await atCabinet(page, async (cabinet) => {
      await button(cabinet, 'Do its own step: Filter hall station').click();
      await expect(cabinet.getByText('lamp steady: has an address').first()).toBeVisible();
    });
    await button(page, 'Done at the device').click();
    await expect(
      page.getByText('said to be kept by its own step, not seen yet').first(),
    ).toBeVisible();
    await expect(page.getByLabel(/stage: given/)).toBeVisible();
    await button(page, 'Now cut its power and watch').click();
    await powerCycle(page, 'Filter hall station', () =>
      expect(page.getByText('Waiting to see it back')).toBeVisible(),
    );
    await expect(page.getByLabel('stage: pinned')).toBeVisible();
  });
});

test('phone: what must not be answered is not, and says why', async ({ page, server }) => {
  await listenInDemo(page, server);

  // The planned address is in use by a stranger.
  await button(page, 'Sludge valve block').click({ timeout: 120_000 });
  await holdLabel(page, '02:4c:7a:40:51:7b', '024c7a40517b');
  await button(page, /^Bind and give/).click();
  await expect(page.getByText('its address is in use by 02:4c:7a:10:00:77').first()).toBeVisible({
    timeout: 120_000,
  });
  await expect(page.getByLabel('stage: heard')).toBeVisible();

  // A wrong sticker: one place differs and looks alike.
  await place(page, 'Assign').click();
  await button(page, 'Drum filter drive 2').click();
  await holdLabel(page, '02:4c:7a:1d:80:03', '02-4C-7A-1D-80-D3');
  await expect(page.getByText('D and 0 are easily confused')).toBeVisible();
  await expect(button(page, /^Bind and give/)).toBeDisabled();
  await button(page, 'Label says D').click();
  await page
    .getByLabel('It is this one all the same: how do you know?')
    .fill('only this one has power');
  await button(page, /^Bind and give/).click();
  await expect(
    page.getByText(/although it reads otherwise: only this one has power/),
  ).toBeVisible();
});

test('wide: list and detail side by side, from the plan to a proven device', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  await openDemo(page, server);
  await page.getByRole('gridcell', { name: 'Drum filter drive 1' }).click();
  await button(page, 'Open').click();
  await expect(page.getByRole('heading', { name: 'Drum filter drive 1' })).toBeVisible();
  await expect(page.getByRole('radio', { name: /^Feeding/ })).toBeVisible();
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await button(page, 'Drum filter drive 1').click();
  await holdLabel(page, '02:4c:7a:1d:80:11', '02-4C-7A-1D-80-11');
  await button(page, 'Bind and give 172.22.40.85').click();
  await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
  await button(page, 'Now cut its power and watch').click();
  await powerCycle(page, 'Drum filter drive 1', () =>
    expect(page.getByText('Waiting to see it back')).toBeVisible(),
  );
  await button(page, 'Prove it: ARP and ping').click();
  await expect(page.getByText(/found as planned, ping/).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: '27 calls left' })).toBeVisible();
});
