import { randomUUID } from 'node:crypto';
import { expect, type Page } from '@playwright/test';
import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { docOf, toDevice, toInterface, toSubnet, type Edit, type Way } from '@ipsonomo/core/plan';
import { test } from './demo';
import {
  atCabinet,
  button,
  choose,
  holdLabel,
  jobOf,
  listenInDemo,
  openCall,
  openDemo,
  PHONE,
  place,
  stage,
  goTo,
  openTool,
} from './pages';

// Routes there and back: one that fails by the plan, cured there, walked on the practice site, cured there as well.

test.use({ viewport: PHONE });

test('a route that cannot answer: found, cured in the plan, walked, given anew, walked again', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Prove').click();
  await openTool(page, 'Routes there and back');
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
  await goTo(page, walked);
  await button(page, 'Walk it').click();
  await expect(page.getByText(/goes as the plan says, and the device answers/)).toBeVisible();
  await expect(page.getByRole('row')).toHaveCount(3);
});

test('as the devices are set: the plan has a gateway by now, and the device has none', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  await atCabinet(page, async (cabinet) => {
    await cabinet.getByRole('radio', { name: 'Feeding switch' }).click();
  });
  await openCall(page, 'Feeding robot drive');
  await holdLabel(page, '02:4c:7a:22:06:11', '02-4C-7A-22-06-11');
  await button(page, 'Bind and give 172.22.41.80').click();
  await expect(stage(page, 'given')).toBeVisible();
  await place(page, 'Prove').click();
  await choose(page, 'Prove', 'Feeding robot drive');
  await button(page, 'Prove 1 device').click();
  await expect(page.getByRole('heading', { name: '1 of 28 devices proven' })).toBeVisible();

  await openTool(page, 'Routes there and back');
  await button(page, 'Controller, filter hall to Feeding robot drive').click();
  await button(page, 'Correct the gateway to 172.22.41.1').click();
  await expect(page.getByText('It works, there and back')).toBeVisible();
  await page.getByRole('checkbox', { name: 'As they are set' }).click();
  await expect(page.getByText('It arrives, but cannot answer')).toBeVisible();
  await page.goBack();
  await expect(
    page.getByText('By the plan they work; as the devices are set, they do not · 1'),
  ).toBeVisible();
});

// Who comes back is held against the moment at which a person says that it is on.
test.describe('in real time', () => {
  test.use({ pace: 1 });

  test('a cold start: everything off and on, and the one that was never told to keep its address stands out', async ({
    page,
    server,
  }) => {
    await listenInDemo(page, server);
    await openCall(page, 'Oxygen valve block');
    await holdLabel(page, '02:4c:7a:40:51:62', '02-4C-7A-40-51-62');
    await button(page, 'Bind and give 172.22.40.104').click();
    await button(page, 'Tell it to keep the address').click();
    await expect(
      page.getByText('told to keep its address, and reads back so').first(),
    ).toBeVisible();
    await openCall(page, 'Sludge valve block');
    await holdLabel(page, '02:4c:7a:40:51:7b', '02-4C-7A-40-51-7B');
    await button(page, /^Bind and give/).click();

    await place(page, 'Prove').click();
    await openTool(page, 'Cold start');
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
});

/** The rack of the practice site, as somebody plans it: a module in the hall, one in a network of its own. */
async function planRack(page: Page): Promise<{ readonly from: string; readonly to: string }> {
  const { api, plan } = await jobOf(page);
  const hall = String(plan.things.subnet.find((one) => one['name'] === 'Filter hall')?.id);
  const asker = plan.things.device.find((one) => one['title'] === 'Controller, filter hall');
  const cell = toSubnet({
    id: randomUUID(),
    ...{ name: 'Grader cell', prefix: must(parsePrefix('192.168.90.0/24')) },
  });
  const device = (title: string, name: string, kindId: string, way: Way) =>
    toDevice({ id: randomUUID(), title, name, kindId, way });
  const rack = device('Grader rack', 'sl3-rack-1', 'osterhew-controller-r', 'makers-tool');
  const valves = device('Grader gate valves', 'sl3-valves-1', 'tarnwick-valves-16', 'bootp');
  const at = (deviceId: string, subnetId: string, address: string, slot?: number) =>
    toInterface({
      ...{ id: randomUUID(), deviceId, subnetId, slot, address: must(parseIpv4(address)) },
      gateway: 'none',
    });
  const target = at(valves.id, cell.id, '192.168.90.21');
  const edits: readonly Edit[] = [
    { op: 'add', type: 'subnet', thing: docOf('subnet', cell) },
    { op: 'add', type: 'device', thing: docOf('device', rack) },
    { op: 'add', type: 'device', thing: docOf('device', valves) },
    ...[at(rack.id, hall, '172.22.40.14', 1), at(rack.id, cell.id, '192.168.90.1', 3), target].map(
      (one): Edit => ({ op: 'add', type: 'interface', thing: docOf('interface', one) }),
    ),
  ];
  const answer = await page.request.post(`${api}/edits`, { data: { edits, why: 'the rack' } });
  expect(answer.status()).toBe(200);
  return { from: String(asker?.id), to: target.id };
}

test('through a rack: no IP gets there, the route path does, and who is at its end is asked', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  const { from, to } = await planRack(page);
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, 'Plug the cable in: Grader rack').click();
    await expect(button(cabinet, 'Pull the cable: Grader rack')).toBeVisible();
  });
  await goTo(
    page,
    page.url().replace(/(\/job\/[^/]+).*/, `$1/there-and-back?from=${from}&to=${to}`),
  );
  await expect(page.getByText('Route path of the automation protocol')).toBeVisible();
  await expect(page.getByText('1,3,2,192.168.90.21')).toBeVisible();
  await button(page, 'Ask along it who is there').click();
  await expect(
    page.getByText(/✓ asked along 1,3,2,192\.168\.90\.21 from Grader rack: it is there/),
  ).toBeVisible();

  // Lane by lane: nobody of the hall gets into the cell.
  await place(page, 'Prove').click();
  await openTool(page, 'Routes there and back');
  await button(page, 'Who can talk with whom').click();
  await expect(page.getByText(/pairs of addresses, there and back/)).toBeVisible();
  await expect(page.getByText('× none')).toBeVisible();
  await page.goBack();

  // In thought only: with its gateway back, the robot would answer.
  await choose(page, 'Whose gateway', 'Feeding robot drive');
  await page.getByLabel('is this one (or: none)').fill('172.22.41.1');
  await expect(
    page.getByText('✓ Controller, filter hall → Feeding robot drive: would work'),
  ).toBeVisible();
});
