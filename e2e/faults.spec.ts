import { expect, type Page } from '@playwright/test';
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
  powerCycle,
  stage,
  watchErrors,
  goTo,
} from './pages';

// What goes wrong on site, seen through the interface: tabs closed, the server or its database away,
// twins, devices that are unplugged or refuse.

/** Closes the tab in the middle of things and opens the same address in a new one. */
async function reopened(page: Page, errors: string[]): Promise<Page> {
  const url = page.url();
  const next = await page.context().newPage();
  await next.setViewportSize(PHONE);
  watchErrors(next, errors);
  await page.close();
  await next.goto(url);
  return next;
}

test('a tab reopened at every step goes on where it was', async ({
  page: first,
  server,
  errors,
}) => {
  let page = first;
  await openDemo(page, server);
  await place(page, 'Assign').click();
  page = await reopened(page, errors);
  await button(page, 'Start listening').click();
  await expect(page.getByText('Strangers: heard, bound to nothing')).toBeVisible();
  page = await reopened(page, errors);
  await expect(page.getByText(/silent, listening/)).toBeVisible();
  await button(page, 'Drum filter drive 1').click({ timeout: 120_000 });
  page = await reopened(page, errors);
  await holdLabel(page, '02:4c:7a:1d:80:11', '02-4C-7A-1D-80-11');
  await button(page, 'Bind and give 172.22.40.85').click();
  // The one that was bound, and two terminals by their names.
  await expect(page.getByText(/Answering 3 devices/)).toBeVisible();
  page = await reopened(page, errors);
  await expect(page.getByText(/Answering 3 devices/)).toBeVisible();
  await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
  await expect(page.getByText('told to keep its address, and reads back so').first()).toBeVisible();
  page = await reopened(page, errors);
  await button(page, 'Now cut its power and watch').click();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  page = await reopened(page, errors);
  await powerCycle(page, 'Drum filter drive 1', async () => {
    page = await reopened(page, errors);
    await expect(page.getByText('Waiting to see it back')).toBeVisible();
  });
  await expect(button(page, 'Prove it: ARP and ping')).toBeVisible();
  page = await reopened(page, errors);
  await button(page, 'Prove it: ARP and ping').click();
  await expect(page.getByLabel('stage: proven')).toBeVisible();
  await page.close();
});

test.describe('with a database of its own', () => {
  test.use({ stopsDatabase: true });

  test('the server and then its database away: told in a sentence, nothing lost, back by itself', async ({
    page,
    server,
    cluster,
  }) => {
    await openDemo(page, server);
    await button(page, 'Add a subnet').click();
    await page.getByLabel('Name', { exact: true }).fill('Laboratory');
    await page.getByLabel('Network with prefix length').fill('172.22.42.0/24');
    await server.kill();
    await expect(page.getByText('! No server')).toBeVisible();
    await button(page, 'Add this subnet').click();
    const waits = page.getByText('1 act waits here until the server answers');
    await expect(waits).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Laboratory' })).toBeVisible();
    await server.restart();
    await expect(page.getByText('Practice site', { exact: true })).toBeVisible();
    await expect(waits).toHaveCount(0);
    await button(page, 'Add a subnet').click();
    await page.getByLabel('Name', { exact: true }).fill('Archive');
    await page.getByLabel('Network with prefix length').fill('172.22.43.0/24');
    cluster?.stopNow();
    await button(page, 'Add this subnet').click();
    await expect(waits).toBeVisible();
    // What only the server can do is refused with why.
    await goTo(page, page.url().replace(/\/plan.*/, '/revisions'));
    await button(page, 'Undo my last').click();
    await expect(page.getByText('The database does not answer. Nothing was changed')).toBeVisible();
    expect(cluster?.start()).toBe(true);
    await expect(waits).toHaveCount(0);
    await place(page, 'Plan').click();
    await expect(page.getByRole('heading', { name: 'Archive' })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Laboratory' })).toBeVisible();
  });
});

test('mistakes of the site, each by its sentence: a trunk, a router that answers for all, a locked page', async ({
  page,
  server,
  context,
}) => {
  await listenInDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    for (const fault of [
      'The laptop is in a port that carries the other network too, with a VLAN tag',
      'The router of the hall answers for every address',
      'The controller of the inspection camera is connected: its page is read-only',
    ]) {
      await button(cabinet, `make wrong: ${fault}`).click();
      await expect(button(cabinet, `put right: ${fault}`)).toBeVisible();
    }
  });
  await goTo(page, page.url().replace(/(\/job\/[^/]+).*/, '$1/wire'));
  await expect(page.getByText('Frames of VLAN 41 (Feeding) come in with a tag')).toBeVisible();
  await button(page, 'Ask for every address').click();
  await expect(page.getByText(/a router that answers for others \(proxy ARP\)/)).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'put right: The router of the hall answers for every address').click();
    await expect(
      button(cabinet, 'make wrong: The router of the hall answers for every address'),
    ).toBeVisible();
  });

  await openCall(page, 'Inspection camera');
  await button(page, 'Look for it at 192.168.77.10').click();
  await page.getByLabel('Type the MAC from the label, in any notation').fill('02-4C-7A-90-3A-C4');
  await button(page, 'Bind this MAC').click();
  const opened = context.waitForEvent('page');
  await button(page, 'Open its page').click();
  const device = await opened;
  await device.getByLabel('User', { exact: true }).fill('setup');
  await device.getByLabel('Password', { exact: true }).fill('setup');
  await button(device, 'Log in').click();
  await device.getByLabel('New password', { exact: true }).fill('halibut9');
  await device.getByLabel('Once more', { exact: true }).fill('halibut9');
  await button(device, 'Set password').click();
  await expect(device.getByText('Read-only while its controller is connected.')).toBeVisible();

  // The server goes in the middle: nothing is open any more, nothing is told as done, and it can begin again.
  await server.kill();
  await server.restart();
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await openCall(page, 'Inspection camera');
  await expect(stage(page, 'given')).toHaveCount(0);
  await button(page, 'Look for it at 192.168.77.10').click();
  const again = context.waitForEvent('page');
  await button(page, 'Open its page').click();
  await expect((await again).getByText('Log in').first()).toBeVisible();
});

test('two devices with one MAC: neither is answered, both are shown; a refusal is told', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    await cabinet.getByRole('radio', { name: 'Feeding switch' }).click();
  });
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await button(page, 'Weighing head').click({ timeout: 120_000 });
  await holdLabel(page, '02:4c:7a:61:80:20', '02-4C-7A-61-80-20');
  await expect(page.getByText('Two devices have this MAC')).toBeVisible({ timeout: 120_000 });
  await expect(page.getByText(/host name weigh-left, last/)).toBeVisible();
  await expect(page.getByText(/host name weigh-right, last/)).toBeVisible();
  await button(page, /^Bind and give/).click();
  await expect(
    page.getByText(/two devices have this MAC \(they differ in: host name/).first(),
  ).toBeVisible({
    timeout: 120_000,
  });
  await expect(page.getByText(/^answered with/)).toHaveCount(0);
  // Whoever has looked knows better, says why, and it is tried again.
  await button(page, 'I looked: it is one device').click();
  await page.getByLabel('How do you know that one device alone has it?').fill('the other is off');
  await button(page, 'It is one device: answer it').click();
  await expect(page.getByText('It is not answered')).toBeHidden();

  // A device that a controller owns is asked before, and refuses to be changed by itself.
  await place(page, 'Assign').click();
  await button(page, 'Feeding valve block').click();
  await holdLabel(page, '02:4c:7a:40:51:90', '02-4C-7A-40-51-90');
  await button(page, /^Bind and give/).click();
  await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
  await page.getByLabel('Why may it be disturbed all the same?').fill('the feeder is stopped');
  await button(page, 'The machine may stop: tell it all the same').click();
  await expect(
    page.getByText(/it refused to be changed: object state conflict/).first(),
  ).toBeVisible();
  await expect(page.getByLabel('stage: given')).toBeVisible();
});

test('an unplugged device is heard once its cable is in', async ({ page, server }) => {
  await listenInDemo(page, server);
  await button(page, 'Backwash drive').click();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Plug the cable in: Backwash drive').click();
    await expect(button(cabinet, 'Pull the cable: Backwash drive')).toBeVisible();
  });
  await holdLabel(page, '02:4c:7a:1d:80:2e', '02-4C-7A-1D-80-2E');
  await expect(page.getByText('Label and wire agree.')).toBeVisible();
});
