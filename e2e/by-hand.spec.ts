import { expect, type Page } from '@playwright/test';
import { test } from './demo';
import { atCabinet, button, openCall, openDemo, PHONE, powerCycle, stage } from './pages';

// Devices that are given their address at themselves: on a web page, a keypad, by their controller.

test.use({ viewport: PHONE });

const field = (page: Page, label: string) => page.getByLabel(label, { exact: true });

async function typeInto(page: Page, device: string, address: string): Promise<void> {
  await button(page, `Type an address into it: ${device}`).click();
  await field(page, `Address on ${device}`).fill(address);
  await button(page, 'Store it in the device').click();
  await button(page, `Type an address into it: ${device}`).click();
}

test('web page: two with one factory address, the page through the wire, restart, power cut', async ({
  page,
  server,
  context,
}) => {
  await openDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Plug the cable in: Inspection camera 2').click();
    await expect(button(cabinet, 'Pull the cable: Inspection camera 2')).toBeVisible();
  });
  await openCall(page, 'Inspection camera');
  await button(page, 'Look for it at 192.168.77.10').click();
  await expect(page.getByText('More than one answers there')).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Pull the cable: Inspection camera 2').click();
    await expect(button(cabinet, 'Plug the cable in: Inspection camera 2')).toBeVisible();
  });
  await expect(page.getByText('It answers at 192.168.77.10')).toBeVisible();
  await field(page, 'Type the MAC from the label, in any notation').fill('02-4C-7A-90-3A-C4');
  await button(page, 'Bind this MAC').click();

  const opened = context.waitForEvent('page');
  await button(page, 'Open its page').click();
  const device = await opened;
  await field(device, 'User').fill('setup');
  await field(device, 'Password').fill('setup');
  await button(device, 'Log in').click();
  await field(device, 'New password').fill('halibut9');
  await field(device, 'Once more').fill('halibut9');
  await button(device, 'Set password').click();
  await field(device, 'Address').fill('172.22.40.151');
  await field(device, 'Gateway').fill('172.22.40.1');
  await button(device, 'Store').click();
  await expect(device.getByText('It is used after a restart')).toBeVisible();
  await device.getByRole('link', { name: 'About' }).click();
  const about = await device.locator('main').innerText();

  // What its page shows is held against the plan; it is still where it was.
  await field(page, 'Paste what its page shows: address, MAC, serial number').fill(about);
  await button(page, 'Hold it against the plan').click();
  await expect(page.getByText(/serial number S903AC4/).first()).toBeVisible();
  await device.getByRole('link', { name: 'Network' }).click();
  await button(device, 'Restart').click();
  await expect(page.getByText('answers no longer at 192.168.77.10')).toBeVisible();
  await device.reload();
  await expect(device.getByText('No page is open')).toBeVisible();

  await button(page, 'Now cut its power and watch').click();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  await powerCycle(page, 'Inspection camera', async () => {
    await expect(page.getByText('Waiting to see it back')).toBeVisible();
  });
  await expect(stage(page, 'pinned')).toBeVisible();
});

test('keypad: swapped digits are named, what is read is not what is seen, then it comes up', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await openCall(page, 'Fry scale 1');
  const display = field(page, 'Type what its display shows now');
  await display.fill('172.22.40.135');
  await button(page, 'Hold it against the plan').click();
  await expect(page.getByText(/Two neighbouring digits are swapped/).first()).toBeVisible();
  await display.fill('172.22.40.153');
  await button(page, 'Hold it against the plan').click();
  await expect(page.getByLabel(/given: read off the device, not seen/).first()).toBeVisible();
  await expect(stage(page, 'planned')).toBeVisible();
  await button(page, 'I only say it is done').click();
  await expect(page.getByText(/said, not seen/).first()).toBeVisible();
  await button(page, 'Look for it').click();
  await expect(page.getByText('Waiting to see it', { exact: true })).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await typeInto(cabinet, 'Fry scale 1', '172.22.40.153');
    await button(cabinet, 'Power off: Fry scale 1').click();
    await button(cabinet, 'Power on: Fry scale 1').click();
  });
  await button(page, 'It is this one').click();
  await expect(stage(page, 'given')).toBeVisible();
});

test('given by its controller: named over layer 2, then its controller does the rest at every start', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await openCall(page, 'Sorting block 5');
  await button(page, 'Search over layer 2').click();
  await button(page, 'look at 02:4c:7a:71:00:31').click();
  await field(page, 'Or type the MAC from the label, in any notation').fill('02-4C-7A-71-00-31');
  await button(page, 'Bind this one').click();
  await button(page, 'Give it the name sl1-block-5').click();
  await expect(page.getByText('Its controller gives it at every start')).toBeVisible();
  // Its controller looks for its stations every two seconds; then it talks with this one, and all can hear that.
  await expect(button(page, 'Now cut its power and watch')).toBeVisible();
  await page.waitForTimeout(5000);
  await button(page, 'Now cut its power and watch').click();
  await expect(
    page.getByText('its controller 172.22.40.10 asked for its address', { exact: false }),
  ).toBeVisible();
  await field(page, 'Why may it be disturbed all the same?').fill('line is stopped and locked');
  await button(page, 'The machine may stop: cut its power all the same').click();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  await powerCycle(page, 'Sorting block 5', async () => {
    await expect(page.getByText('Waiting to see it back')).toBeVisible();
  });
  await expect(stage(page, 'pinned')).toBeVisible();
});

test('card: read at power-up; tool: at its address already, and its label shows it is the one', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await openCall(page, 'Laboratory switch');
  await button(page, 'Power off and on: watch it').click();
  await expect(page.getByText('Nothing has the address now')).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await typeInto(cabinet, 'Laboratory switch', '172.22.40.4');
    await button(cabinet, 'Power off: Laboratory switch').click();
    await button(cabinet, 'Power on: Laboratory switch').click();
  });
  await button(page, 'It is this one').click();
  await expect(stage(page, 'pinned')).toBeVisible();

  await openCall(page, 'Controller, filter hall');
  await button(page, 'Look for it at 192.168.60.1').click();
  await field(page, 'Type the MAC from the label, in any notation').fill('02-4C-7A-10-00-01');
  await button(page, 'Bind this MAC').click();
  await expect(stage(page, 'given')).toBeVisible();
});
