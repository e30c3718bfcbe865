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
  pick,
  place,
  powerCycle,
  stage,
} from './pages';

// A device of each way on the practice site, on a phone, each to the end of its call.

test.use({ viewport: PHONE });

/** Turns switches at the cabinet; they are drawn there as they sit on the device. */
async function turn(page: Page, device: string, dial: string, times: number): Promise<void> {
  await button(page, `Turn its switches: ${device}`).click();
  for (let count = 0; count < times; count += 1) await button(page, dial).click();
  await button(page, `Leave its switches: ${device}`).click();
}

// A lamp flashes for three seconds, in which somebody has to look at it.
test.describe('in real time', () => {
  test.use({ pace: 1 });

  test('layer 2: alike blocks told apart by lamp and label, named, given to stay, through a power cut', async ({
    page,
    server,
  }) => {
    await listenInDemo(page, server);
    await openCall(page, 'Sorting block 1');
    await button(page, 'Search over layer 2').click();
    await expect(page.getByRole('heading', { name: '6 may be it' })).toBeVisible();
    await button(page, 'look at 02:4c:7a:71:00:21').click();
    // Not by luck: neither label nor lamp has shown it yet.
    await expect(button(page, 'Bind this one')).toBeDisabled();
    await page
      .getByLabel('Or type the MAC from the label, in any notation')
      .fill('02-4C-7A-71-00-22');
    await expect(page.getByText('this is another device')).toBeVisible();
    await expect(button(page, 'Bind this one')).toBeDisabled();
    await page.getByLabel('Or type the MAC from the label, in any notation').fill('');
    await atCabinet(page, async (cabinet) => {
      // Somebody looks at the lamps while it is asked to flash.
      const seen = expect(cabinet.getByText('lamp flashes: somebody asked it to')).toBeVisible();
      await button(page, 'Flash its lamp').click();
      await seen;
    });
    await expect(button(page, 'Its lamp flashes: bind it')).toBeEnabled();
    await button(page, 'Its lamp flashes: bind it').click();
    await button(page, 'Give name and address, to stay').click();
    await button(page, 'Now cut its power and watch').click();
    await expect(page.getByText('Waiting to see it gone')).toBeVisible();
    await powerCycle(page, 'Sorting block 1', async () => {
      await expect(page.getByText('Waiting to see it back')).toBeVisible();
    });
    await expect(stage(page, 'pinned')).toBeVisible();
    await button(page, 'Prove it: ARP and ping').click();
    await expect(stage(page, 'proven')).toBeVisible();
  });
});

test('layer 2: one that a controller runs refuses; a used one is set back with a reason', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await openCall(page, 'Sorting block 4');
  await button(page, 'Search over layer 2').click();
  await button(page, 'look at 02:4c:7a:71:00:2a').click();
  await page
    .getByLabel('Or type the MAC from the label, in any notation')
    .fill('02-4C-7A-71-00-2A');
  await button(page, 'Bind this one').click();
  await button(page, 'Give name and address, to stay').click();
  await expect(
    page.getByText(/its controller runs it. Stop the connection first/).first(),
  ).toBeVisible();
  await expect(stage(page, 'heard')).toBeVisible();

  await openCall(page, 'Sorting block 3');
  await button(page, 'look at 02:4c:7a:71:00:27').click();
  await button(page, 'Flash its lamp').click();
  await button(page, 'Its lamp flashes: bind it').click();
  await expect(page.getByText('It goes by press-block-4 and has 10.20.0.15')).toBeVisible();
  await button(page, 'Set it back first').click();
  await expect(button(page, 'Set it back to how it left its maker')).toBeDisabled();
  await page.getByLabel('Why is it free to be set back?').fill('taken from the old press line');
  await button(page, 'Set it back to how it left its maker').click();
  await expect(page.getByText('no name yet')).toBeVisible();
  await button(page, 'Only for now, until power-off').click();
  await expect(page.getByText('The address is temporary')).toBeVisible();
  await button(page, 'Store name and address in it').click();
  await expect(button(page, 'Now cut its power and watch')).toBeVisible();
});

test('switches: four touches from the round to done; one that comes up elsewhere is told', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  let touches = 0;
  const touch = async (name: string) => {
    await button(page, name).click();
    touches += 1;
  };
  await touch('Grader station 1');
  await touch('Power off, turn, power on: watch it');
  await expect(page.getByText('Waiting to see 172.22.40.110 come up')).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Power off: Grader station 1').click();
    await turn(cabinet, 'Grader station 1', '×100 one up', 1);
    await turn(cabinet, 'Grader station 1', '×10 one up', 1);
    await button(cabinet, 'Power on: Grader station 1').click();
    await expect(button(cabinet, 'Power off: Grader station 1')).toBeVisible();
  });
  await touch('It is this one');
  await expect(stage(page, 'pinned')).toBeVisible();
  expect(touches).toBeLessThanOrEqual(4);

  // The second one keeps the network of another site.
  await openCall(page, 'Grader station 2');
  await button(page, 'Power off, turn, power on: watch it').click();
  await expect(page.getByText('Waiting to see 172.22.40.111 come up')).toBeVisible();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Power off: Grader station 2').click();
    await turn(cabinet, 'Grader station 2', '×100 one up', 1);
    await turn(cabinet, 'Grader station 2', '×10 one up', 1);
    await turn(cabinet, 'Grader station 2', '×1 one up', 1);
    await button(cabinet, 'Power on: Grader station 2').click();
    await expect(button(cabinet, 'Power off: Grader station 2')).toBeVisible();
  });
  await expect(
    page.getByText(/came up with 192.168.1.111 instead .* has the network from before/).first(),
  ).toBeVisible();
  await expect(stage(page, 'planned')).toBeVisible();
  await button(page, 'Fall silent').click();
});

test('DHCP by name: its switches make the name, and nothing has to be bound', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await openCall(page, 'Grader terminal 1');
  await expect(page.getByText('terminal4-001').first()).toBeVisible();
  await button(page, 'Answer for 10 minutes').click();
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Power off: Grader terminal 1').click();
    await turn(cabinet, 'Grader terminal 1', 'MODE one up', 2);
    await turn(cabinet, 'Grader terminal 1', '×1 one up', 1);
    await button(cabinet, 'Power on: Grader terminal 1').click();
    await expect(button(cabinet, 'Power off: Grader terminal 1')).toBeVisible();
  });
  await expect(stage(page, 'given')).toBeVisible();
  await expect(page.getByText('02:4c:7a:66:14:02').first()).toBeVisible();
  await expect(page.getByText('heard asking under the name terminal4-001')).toBeVisible();
  // It lasts to the next power-off, and nobody goes home over it unaware.
  await place(page, 'Hand over').click();
  await expect(page.getByText('1 address gone at the next power-off')).toBeVisible();
});

test('swap: the steps for somebody without a laptop, printed on one page, and the spare is bound anew', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await page.getByLabel('Look up a device, a name or an address').fill('grader station 1');
  await button(page, /^Grader station 1/).click();
  await button(page, 'It is dead: swap it').click();
  await expect(page.getByText('No laptop is needed')).toBeVisible();
  await expect(page.getByText('Set its switches as drawn')).toBeVisible();
  await expect(page.getByText('Its address is 172.22.40.110.')).toBeVisible();
  const paper = (await page.pdf({ format: 'A4', printBackground: true })).toString('latin1');
  expect(paper.match(/\/Type \/Page\b/g)).toHaveLength(1);
  await button(page, 'The spare is in: look for it').click();
  await expect(button(page, 'Power off, turn, power on: watch it')).toBeVisible();
});

test('the round: what to carry, another order and what it costs, and back', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  await expect(page.getByText(/^Carry: network cable, small screwdriver/)).toBeVisible();
  await expect(
    button(page, 'Go to Controller, filter hall').or(button(page, 'Start listening')),
  ).toBeVisible();
  await button(page, 'Change the order').click();
  await button(page, 'Last: Controller, filter hall').click();
  await expect(page.getByText('You walk in an order of your own')).toBeVisible();
  // Dragged by its handle, with a finger that moves by two rows.
  const handles = page.getByLabel(/^Drag: /);
  const names = () =>
    handles.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')));
  const before = await names();
  const [grip, target] = await Promise.all([0, 2].map((row) => handles.nth(row).boundingBox()));
  if (!grip || !target) throw new Error('no handle');
  await page.mouse.move(grip.x + 20, grip.y + 20);
  await page.mouse.down();
  await page.mouse.move(grip.x + 20, grip.y + 60, { steps: 4 });
  await page.mouse.move(grip.x + 20, target.y + 20, { steps: 4 });
  await page.mouse.up();
  expect((await names()).slice(0, 3)).toEqual([before[1], before[2], before[0]]);
  await page.reload();
  await expect(page.getByText('You walk in an order of your own')).toBeVisible();
  await button(page, 'Back to the best order').click();
  await expect(page.getByText('You walk in an order of your own')).toBeHidden();
});

test('used before: it does not ask; set back at the device with a reason, then it does', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, /^make wrong: The intake pump drive was used before/).click();
    await expect(button(cabinet, /^put right: The intake pump drive was used/)).toBeVisible();
  });
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await openCall(page, 'Intake pump drive');
  // A stranger of its kind asks, but it is not this one.
  await button(page, 'It is none that is heard').click();
  await expect(page.getByText('Does it keep an address from before?')).toBeVisible();
  await button(page, 'It was used before: set it back').click();
  await expect(page.getByText('Menu Network, Defaults: confirm')).toBeVisible();
  await expect(button(page, 'It is set back')).toBeDisabled();
  await page.getByLabel('Why is it free to be set back?').fill('spare from the old hoist');
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Set it back: Intake pump drive').click();
  });
  await powerCycle(page, 'Intake pump drive', async () => undefined);
  await button(page, 'It is set back').click();
  await expect(
    page.getByText(/said to be set back, not seen: spare from the old hoist/),
  ).toBeVisible();
  await button(page, 'Look at what is heard').click();
  await holdLabel(page, '02:4c:7a:22:05:9e', '02-4C-7A-22-05-9E');
  await expect(page.getByText('Label and wire agree.')).toBeVisible();
});

test('a loan: another address for now, seen in use, taken back as a call of its own', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  await button(page, 'Boxes at the desk').click();
  await pick(page, 'What is in the box', 'Valve block, 16 coils');
  await page.getByLabel('Sticker of the box', { exact: true }).fill('02-4C-7A-40-51-62');
  await button(page, 'it is Oxygen valve block').click();
  await button(page, 'Bind to Oxygen valve block').click();
  await expect(page.getByText('Oxygen valve block is bound')).toBeVisible();
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await openCall(page, 'Oxygen valve block');
  await button(page, 'Lend it another address').click();
  await page.getByLabel('Address to lend').fill('172.22.40.85');
  await expect(page.getByText(/172\.22\.40\.85 is .*Drum filter drive/)).toBeVisible();
  await expect(button(page, 'Lend it')).toBeDisabled();
  await page.getByLabel('Address to lend').fill('172.22.40.190');
  await button(page, 'Lend it').click();
  await expect(page.getByText(/^Lent 172\.22\.40\.190 until/)).toBeVisible();
  await button(page, 'Answer for 10 minutes').click();
  await expect(page.getByText('It has that address now, and not 172.22.40.104')).toBeVisible();
  await expect(stage(page, 'heard')).toBeVisible();

  await button(page, 'Take 172.22.40.190 back').click();
  await expect(button(page, 'Lend it another address')).toBeVisible();
  await powerCycle(page, 'Oxygen valve block', async () => undefined);
  await expect(stage(page, 'given')).toBeVisible();
});

test('in use: a device that a controller uses is told nothing, until a person says why', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'make wrong: A controller uses the oxygen valve block').click();
    await expect(
      button(cabinet, 'put right: A controller uses the oxygen valve block'),
    ).toBeVisible();
  });
  await openCall(page, 'Oxygen valve block');
  await holdLabel(page, '02:4c:7a:40:51:62', '02-4C-7A-40-51-62');
  await button(page, 'Bind and give 172.22.40.104').click();
  await button(page, 'Tell it to keep the address').click();
  await expect(page.getByText(/Oxygen valve block is in use: its identity says/)).toBeVisible();
  const anyway = button(page, 'The machine may stop: tell it all the same');
  await expect(anyway).toBeDisabled();
  await page.getByLabel('Why may it be disturbed all the same?').fill('line is stopped and locked');
  await anyway.click();
  await expect(
    page.getByText(/although a controller uses it: line is stopped and locked/),
  ).toBeVisible();
  // It refuses by itself as well.
  await expect(page.getByText('It was not told')).toBeVisible();
});
