import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import type { ProofView } from '@ipsonomo/core/api';
import { addingDevices } from '../core/test/jobs';
import { test } from './demo';
import {
  atCabinet,
  button,
  choose,
  giveFile,
  holdLabel,
  jobOf,
  listenInDemo,
  openCall,
  openDemo,
  PHONE,
  pick,
  place,
  stage,
  WIDE,
  openTool,
} from './pages';

// Expected against found: a run, every outcome a difference can come to, the causes, two runs compared.

test.use({ viewport: PHONE });

async function give(page: Page, title: string, mac: string): Promise<void> {
  await openCall(page, title);
  await holdLabel(page, mac, mac);
  await button(page, /^Bind and give/).click();
  await expect(stage(page, 'given')).toBeVisible();
}

/** A whole run; at ten times the pace it may be over before anybody has looked at it. */
async function prove(page: Page): Promise<void> {
  await place(page, 'Prove').click();
  const { api } = await jobOf(page);
  const ended = async () => {
    const runs = (await (await page.request.get(`${api}/proofs`)).json()) as ProofView[];
    return runs.filter(({ how }) => how !== null).length;
  };
  const before = await ended();
  await button(page, /^Prove \d+ devices$/).click();
  await expect.poll(ended).toBe(before + 1);
  await expect(button(page, 'Stop the run')).toBeHidden();
}

/** Somebody wrote the MACs of two drives into each other's lines. */
async function exchangeInPlan(page: Page, one: string, other: string): Promise<void> {
  const { api, plan } = await jobOf(page);
  const [a, b] = [one, other].map((mac) => plan.things.interface.find((at) => at['mac'] === mac));
  const set = (thing: typeof a, to: typeof b) => ({
    ...{ op: 'set', type: 'interface', id: thing?.id, field: 'mac' },
    ...{ from: thing?.['mac'], to: to?.['mac'] },
  });
  const edits = [set(a, b), set(b, a)];
  const answer = await page.request.post(`${api}/edits`, { data: { edits, why: 'a slip' } });
  expect(answer.status()).toBe(200);
}

test('differences are shown side by side, and each outcome does what it says', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await give(page, 'Oxygen valve block', '02:4c:7a:40:51:62');
  await give(page, 'Drum filter drive 1', '02:4c:7a:1d:80:11');
  await give(page, 'Intake pump drive', '02:4c:7a:22:05:9e');
  await exchangeInPlan(page, '02:4c:7a:1d:80:11', '02:4c:7a:22:05:9e');
  await atCabinet(page, async (cabinet) => {
    const fault = 'The oxygen valve block is of another hardware revision';
    await button(cabinet, `make wrong: ${fault}`).click();
    await expect(button(cabinet, `put right: ${fault}`)).toBeVisible();
  });
  await button(page, 'Fall silent').click();
  await prove(page);

  // The two drives hang in each other's places: the plan exchanges them.
  await page.getByText('Swapped with Intake pump drive').click();
  await expect(page.getByText('Swapped with', { exact: false })).toHaveCount(0);

  // The plan was wrong: the block is of a newer revision, and proven once it is asked again.
  await expect(page.getByText('another revision')).toBeVisible();
  await button(page, 'Oxygen valve block: The plan was wrong: take what was found').click();
  await expect(page.getByText('another revision')).toBeHidden();
  await prove(page);
  await expect(page.getByRole('heading', { name: '3 of 28 devices proven' })).toBeVisible();

  // Something answers where nothing is bound: why may that be? And what only an eye can see.
  await button(page, 'Likely causes: Sludge valve block').click();
  await page.getByRole('checkbox', { name: 'Its lamps are dark' }).click();
  await expect(page.getByText('its lamps are dark', { exact: false }).first()).toBeVisible();
  await page.goBack();

  // A device is switched off; the next run tells what is different since the one before.
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Power off: Drum filter drive 1').click();
    await expect(button(cabinet, 'Power on: Drum filter drive 1')).toBeVisible();
  });
  await prove(page);
  await openTool(page, 'Kept runs');
  await button(page, /^run of .*, whole job$/)
    .first()
    .click();
  await expect(page.getByText('as planned → silent')).toBeVisible();
});

test('both stay with a reason, and the reason is taken back', async ({ page, server }) => {
  await listenInDemo(page, server);
  await openCall(page, 'Sludge valve block');
  await holdLabel(page, '02:4c:7a:40:51:7b', '02-4C-7A-40-51-7B');
  await button(page, /^Bind/).click();
  await expect(button(page, 'Fall silent')).toBeVisible();
  await button(page, 'Fall silent').click();
  await place(page, 'Prove').click();
  await pick(page, 'Prove', 'cabinet FH3');
  await button(page, /^Prove \d+ device/).click();
  await button(page, 'Sludge valve block: Both stay as they are …').click();
  await page.getByLabel('Why may both stay?').fill('the lift goes on Friday');
  await button(page, 'Let both stay').click();
  await expect(page.getByText('Stays otherwise, with a reason · 1')).toBeVisible();
  await expect(page.getByText('the lift goes on Friday (Mara Quist)')).toBeVisible();
  await button(page, 'Take the reason back').click();
  await expect(page.getByText('Otherwise · 1')).toBeVisible();

  // Wrong is the device: its call. It was replaced: the steps of a swap.
  await button(page, 'Sludge valve block: The device is wrong: put it right').click();
  await expect(page.getByRole('heading', { name: 'Sludge valve block', level: 1 })).toBeVisible();
  await page.goBack();
  await button(page, 'Sludge valve block: It was replaced by another device').click();
  await expect(page).toHaveURL(/\/swap\//);
});

test.describe('at the pace of people', () => {
  test.use({ pace: 1 });
  test('a run is stopped in the middle and goes on with the rest', async ({ page, server }) => {
    await listenInDemo(page, server);
    await place(page, 'Prove').click();
    await pick(page, 'Pace', '50 packets/s');
    await button(page, /^Prove \d+ devices$/).click();
    await button(page, 'Stop the run').click();
    await expect(page.getByText('The last run was stopped by hand')).toBeVisible();
    await page.reload();
    await button(page, /^Go on with the \d+$/).click();
    await expect(button(page, 'Stop the run')).toBeVisible();
    await expect(button(page, 'Stop the run')).toBeHidden();
    await expect(page.getByText('The last run was stopped by hand')).toBeHidden();
  });
});

test('as the controller has it: pasted, and held against plan and device', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Prove').click();
  await openTool(page, 'As the controller has it');
  await button(page, 'Paste from the controller').click();
  const field = page.getByLabel('Paste the table here, or type it');
  await field.fill('name\taddress\nox1-valves-1\t172.22.40.300');
  await expect(page.getByText(/300/).last()).toBeVisible();
  const names = ['ox1-valves-1\t172.22.40.140\t2.1', 'nobody-knows\t10.0.0.1\t'];
  await field.fill(['name\taddress\trevision', ...names].join('\n'));
  await expect(page.getByText('nobody-knows → nobody of the plan')).toBeVisible();
  await button(page, 'Take 1 line').click();
  await expect(page.getByText('Differs · 1')).toBeVisible();
  const table = page.getByRole('table', { name: /^Oxygen valve block/ });
  await expect(table.getByText('172.22.40.140')).toBeVisible();
  await expect(table.getByText('× address')).toBeVisible();
  await expect(table.getByText('✓ name')).toBeVisible();

  // The same out of a file: it is seen before it is taken.
  await button(page, 'Paste from the controller').click();
  const lines = 'name;address;in;unit;input instance\nox1-valves-1;172.22.40.104;1;words;102\n';
  await giveFile(page, 'Choose a file', { name: 'project.csv', bytes: Buffer.from(lines) });
  await expect(page.getByText('ox1-valves-1 → Oxygen valve block')).toBeVisible();
  await button(page, 'Take 1 line').click();
  await expect(table.getByText('✓ address')).toBeVisible();
  await expect(table.getByText('✓ bytes in')).toBeVisible();
  await expect(table.getByText('× instance in')).toBeVisible();
});

test('modules slot by slot: another one is found, its cause named, and asked again once it is right', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await openCall(page, 'Sorting block 2');
  await button(page, 'Search over layer 2').click();
  await button(page, 'look at 02:4c:7a:71:00:22').click();
  await page
    .getByLabel('Or type the MAC from the label, in any notation')
    .fill('02-4C-7A-71-00-22');
  await button(page, 'Bind this one').click();
  await button(page, 'Give name and address, to stay').click();
  await expect(stage(page, 'given')).toBeVisible();
  const fault = 'The second module of sorting block 2 is another than planned';
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, `make wrong: ${fault}`).click();
    await expect(button(cabinet, `put right: ${fault}`)).toBeVisible();
  });
  await place(page, 'Prove').click();
  await choose(page, 'Prove', 'Sorting block 2');
  await button(page, 'Prove 1 device').click();
  await expect(page.getByText('other modules')).toBeVisible();
  await expect(page.getByText('slot 2: 8 channels')).toBeVisible();

  await button(page, 'Likely causes: Sorting block 2').click();
  await expect(
    page.getByText('1. Its modules are plugged in otherwise than planned'),
  ).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, `put right: ${fault}`).click();
    await expect(button(cabinet, `make wrong: ${fault}`)).toBeVisible();
  });
  await button(page, /^Done: ask it again: Its modules/).click();
  await expect(page.getByText('its modules are other than planned')).toBeHidden();
  await expect(page.getByText(/^What was seen since/)).toBeVisible();
  await expect(page.getByText('No cause fits')).toBeVisible();
  await page.goBack();
  await expect(page.getByText('other modules')).toBeHidden();
});

test('a vigil shows who is lost beat by beat, and one register is read', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await give(page, 'Drum filter drive 1', '02:4c:7a:1d:80:11');
  await button(page, 'Fall silent').click();
  await place(page, 'Prove').click();
  await openTool(page, 'Vigil');
  await pick(page, 'Whom', 'cabinet FH2');
  await button(page, 'Begin the vigil').click();
  await expect(page.getByText(/✓ all of \d+ answered/)).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Pull the cable: Drum filter drive 1').click();
    await expect(button(cabinet, 'Plug the cable in: Drum filter drive 1')).toBeVisible();
  });
  await expect(page.getByText(/× \d+ of \d+ lost, the longest for/).first()).toBeVisible();
  await button(page, 'End the vigil').click();
  await expect(page.getByText('It was ended before its time')).toBeVisible();
  const download = page.waitForEvent('download');
  await button(page, 'Download every beat as a table').click();
  const csv = readFileSync(await (await download).path(), 'utf8');
  expect(csv).toMatch(/^time,.*Drum filter drive 1 172\.22\.40\.85/);
  expect(csv).toContain('lost');

  // A gateway is added to the plan and plugged in; its own registers are read.
  const { api, plan } = await jobOf(page);
  const hall = plan.things.subnet.find((one) => one['name'] === 'Filter hall')?.id;
  const gateway = { title: 'Scale gateway', name: 'lb1-gateway-1', kindId: 'corrigall-gateway-2' };
  const devices = [
    {
      ...gateway,
      way: 'web-page',
      area: '',
      cabinet: '',
      position: '',
      subnetId: String(hall),
      address: '172.22.40.51',
    },
  ];
  const data = { edits: addingDevices(devices), why: 'a gateway' };
  expect((await page.request.post(`${api}/edits`, { data })).status()).toBe(200);
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Plug the cable in: Scale gateway').click();
    await expect(button(cabinet, 'Pull the cable: Scale gateway')).toBeVisible();
  });
  await place(page, 'Prove').click();
  await openTool(page, 'As the controller has it');
  await page.getByLabel('Register').fill('40003');
  await pick(page, 'Counted', 'with an area digit (40001)');
  await button(page, 'Read it').click();
  await expect(
    page.getByText(/✓ the device itself, holding register 40003: 74 \(0x004A\)/),
  ).toBeVisible();
});

test('the picture: two are chosen, their way is drawn, and it is saved as it stands', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  await openDemo(page, server);
  await place(page, 'Prove').click();
  await openTool(page, 'The site as it is connected');
  await choose(page, 'From', 'Controller, filter hall');
  await choose(page, 'To', 'Feeding robot drive');
  await expect(page.getByText('It arrives, but cannot answer')).toBeVisible();
  const download = page.waitForEvent('download');
  await button(page, 'Save the picture as SVG').click();
  const svg = readFileSync(await (await download).path(), 'utf8');
  const parsed = await page.evaluate((text) => {
    const doc = new DOMParser().parseFromString(text, 'image/svg+xml');
    const texts = Array.from(doc.querySelectorAll('text')).map((one) => one.textContent);
    return {
      root: doc.documentElement.tagName,
      texts,
      ways: doc.querySelectorAll('polyline').length,
    };
  }, svg);
  expect(parsed.root).toBe('svg');
  expect(parsed.texts).toContain('Feeding robot drive');
  expect(parsed.texts).toContain('Router of the site');
  expect(parsed.ways).toBe(2);
  await button(page, 'Step by step').click();
  await expect(page).toHaveURL(/there-and-back/);

  // On a phone, where one lane is shown at a time, the whole of it is saved as well.
  await page.goBack();
  await page.setViewportSize(PHONE);
  await expect(page.getByText('Lane', { exact: true })).toBeVisible();
  const again = page.waitForEvent('download');
  await button(page, 'Save the picture as SVG').click();
  const whole = readFileSync(await (await again).path(), 'utf8');
  expect(whole).toMatch(/^<svg[^>]* xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
  expect(whole).toContain('Feeding robot drive');
});
