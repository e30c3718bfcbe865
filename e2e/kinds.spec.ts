import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './demo';
import { button, giveFile, openDemo, PHONE, pick, goTo } from './pages';

// A kind from its description file to a device with modules, a connection and switches.

const FOLDER = join(__dirname, '../server/test/data/descriptions');
const READ = 'Read a description file';
const PLAIN = readFileSync(join(FOLDER, 'plain.xml'), 'utf8');

test('phone: kinds from description files, their papers, modules and switches', async ({
  page,
  server,
}) => {
  await page.setViewportSize(PHONE);
  await openDemo(page, server);
  const job = page.url().replace(/(\/job\/[^/]+).*/, '$1');
  await goTo(page, `${job}/kinds`);

  await test.step('files that describe nothing are refused, with why', async () => {
    for (const [name, content, told] of [
      ['empty.eds', '', 'empty.eds is empty.'],
      ['list.xml', '<list/>', 'list.xml describes no device.'],
      ['other.eds', '[File]\nDescText = "nothing";\n', 'other.eds describes no device.'],
      ['deep.xml', '<a>'.repeat(200), 'deep.xml: its elements stand in one another'],
      ['picture.eds', '\u0000\u0001', 'picture.eds is no text.'],
    ] as const) {
      await giveFile(page, READ, { name, bytes: Buffer.from(content) });
      await expect(page.getByText(told)).toBeVisible();
      await button(page, 'Leave it').click();
    }
  });

  await test.step('one of the two kinds of a file is taken, then changed by a newer file', async () => {
    await giveFile(page, READ, join(FOLDER, 'plain.xml'));
    await button(page, 'Leave Station, 1 slot').click();
    await button(page, 'Put it on the shelf').click();
    await expect(button(page, 'Station, 8 slots')).toBeVisible();
    await expect(button(page, 'Station, 1 slot')).toBeHidden();
    const newer = PLAIN.replace('V1.4', 'V1.5').replace(
      /<DeviceAccessPointItem ID="DAP 2"[^]*?<\/DeviceAccessPointItem>/,
      '',
    );
    await giveFile(page, READ, { name: 'newer.xml', bytes: Buffer.from(newer) });
    await expect(page.getByText('revision: V1.4 → V1.5')).toBeVisible();
    await button(page, 'Change the kind').click();
    await expect(button(page, READ)).toBeVisible();
  });

  await test.step('a manual is attached, and opens', async () => {
    await button(page, 'Station, 8 slots').click();
    await giveFile(page, 'Attach a manual or another paper', {
      ...{ name: 'station manual.pdf', bytes: Buffer.from('%PDF-1.4 manual') },
    });
    const link = page.getByRole('link', { name: 'Open station manual.pdf' });
    await expect(link).toBeVisible();
    for (const name of ['plain.xml', 'newer.xml'])
      await expect(page.getByRole('link', { name: `Open ${name}` })).toBeVisible();
    const plan = await page.request.get(`${job.replace('/job/', '/api/jobs/')}/plan.json`);
    expect(await plan.text()).toContain(Buffer.from('%PDF-1.4 manual').toString('base64'));
  });

  await test.step('two devices of it by patterns', async () => {
    await goTo(page, `${job}/new-devices`);
    await pick(page, 'Kind', 'Station, 8 slots');
    await page.getByLabel('How many').fill('2');
    await page.getByLabel('Cabinet').fill('SL2');
    await page.getByLabel('What people call them; {n} counts').fill('Sorting station {n}');
    await page.getByLabel('Pattern of their host names').fill('sl-{stem}-{nn');
    await expect(page.getByText(/“?\{nn/).first()).toBeVisible();
    await expect(button(page, 'Add 2 devices')).toBeDisabled();
    await page.getByLabel('Pattern of their host names').fill('sl-{stem}-{nn}');
    await button(page, 'Add 2 devices').click();
    await page.getByLabel('Look up a device, a name or an address').fill('sl-station-02');
    await button(page, 'Sorting station 2').click();
    await expect(page.getByRole('link', { name: 'Open station manual.pdf' })).toBeVisible();
  });

  await test.step('its modules make its connection, and what differs at the controller is told', async () => {
    await button(page, 'Everything of this device').click();
    await button(page, 'Modules').click();
    for (let slot = 1; slot <= 3; slot += 1) await button(page, 'Add a module').click();
    await page.getByRole('combobox', { name: 'Module: 8 inputs' }).last().click();
    await page.getByRole('option', { name: '2 analog outputs' }).click();
    await expect(page.getByText('Together 4 bytes in; 11 bytes out')).toBeVisible();
    await button(page, 'Connection').click();
    await button(page, 'Plan a connection').click();
    await button(page, 'Take the sizes from the modules').click();
    const out = page.getByLabel('Outputs, in bytes');
    await expect(out.nth(0)).toHaveValue('11');
    await out.nth(1).fill('15');
    await expect(page.getByText(/differ by 4|header of 4|4 bytes/).first()).toBeVisible();
    await button(page, 'Save').click();
    await expect(page.getByRole('heading', { name: 'Sorting station 2' })).toBeVisible();
  });

  await test.step('switches are set by touch and read', async () => {
    await goTo(page, `${job}/kinds`);
    await button(page, 'Block I/O station 20').click();
    await expect(page.getByText('It asks for its address by BootP.')).toBeVisible();
    for (let turn = 0; turn < 8; turn += 1) await button(page, '×10 one up').click();
    for (let turn = 0; turn < 4; turn += 1) await button(page, '×1 one down').click();
    await expect(page.getByText('The last number of its address is 86.')).toBeVisible();
    await button(page, '×100 one down').click();
    await expect(page.getByText('986 means nothing to this device.')).toBeVisible();
  });
});
