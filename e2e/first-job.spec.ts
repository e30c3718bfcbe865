import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import type { CabinetAction, CabinetView, PlanView } from '@ipsonomo/core/api';
import { docFromView } from '@ipsonomo/core/api';
import { planOf, wantedSetting, type Plan } from '@ipsonomo/core/plan';
import { must } from '@ipsonomo/core/net';
import { siteOfPlan, withMistakes } from '@ipsonomo/practice';
import { MISTAKE_WORDS } from '../app/src/features/wire/rehearsal/mistake-words';
import { test } from './demo';
import { api, type TestServer } from './harness';
import { choose, follow, pickByKeys, press, tick, write } from './keys';
import { button, giveFile, goTo, openCall, pick, place, saveFormat, stage, WIDE } from './pages';

// A stranger's own job, from an empty installation to the list that is handed over: first steps, a kind of one's own with
// two dials, a description file, a dotted mask, eight devices, rehearsed with two surprises, all proven.

test.use({ demo: false, person: '' });

const EDS = join(__dirname, '../core/test/data/descriptions/plain.eds');
/** Of a rehearsal whose two mistakes do not hide each other. */
const SEED = '25';

/** Counts what is touched; typing is no touch. */
async function countTouches(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const typed = (target: EventTarget | null) =>
      target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;
    addEventListener(
      'click',
      ({ target }) => {
        if (typed(target)) return;
        sessionStorage.setItem('touches', String(Number(sessionStorage.getItem('touches')) + 1));
      },
      true,
    );
  });
  return () => page.evaluate(() => Number(sessionStorage.getItem('touches')));
}

async function firstSteps(page: Page): Promise<void> {
  await button(page, 'First steps').click();
  await page.getByLabel('Your name, written beside everything you decide').fill('Ida Venn');
  await button(page, 'Next').click();
  await page.getByLabel('What the job is called').fill('Bottling line 9');
  await button(page, 'Next').click();
  await page.getByLabel('Its name').fill('Line');
  await page.getByLabel('Its network').fill('192.168.10.0 255.255.255.0');
  await button(page, 'Begin the job').click();
  await expect(page.getByRole('heading', { name: 'New devices' })).toBeVisible();
}

async function ownKind(page: Page): Promise<void> {
  await button(page, 'A kind of your own').click();
  await page.getByRole('textbox', { name: 'Its maker' }).fill('Ollerby');
  await page.getByLabel('What the kind is called').fill('Dosing head');
  await page.getByRole('checkbox', { name: 'switches' }).click();
  await page.getByRole('radio', { name: 'as its switches say' }).click();
  await button(page, 'Add a dial').click();
  await button(page, 'Add a dial').click();
  await button(page, 'Make this kind').click();
  await expect(page.getByText('Switch 1 has no name', { exact: false })).toBeVisible();
  await page.getByLabel('What stands beside switch 1').fill('×10');
  await page.getByLabel('What stands beside switch 2').fill('×1');
  await page.getByLabel('to value (1)').fill('99');
  // Tried at once, in both directions.
  await page.getByLabel('How it must stand for this address').fill('.86');
  await expect(page.getByText('Try it, in 192.168.10.0/24')).toBeVisible();
  await button(page, 'Make this kind').click();
  await expect(page.getByRole('heading', { name: 'New devices' })).toBeVisible();
}

async function add(page: Page, count: number, titles: string): Promise<void> {
  await page.getByLabel('How many').fill(String(count));
  await page.getByLabel(/^What people call them/).fill(titles);
  await button(page, `Add ${count} device${count > 1 ? 's' : ''}`).click();
  await expect(button(page, new RegExp(`^${titles.replace('{n}', '1')}`))).toBeVisible();
}

async function planEight(page: Page): Promise<void> {
  await add(page, 4, 'Dosing {n}');
  await button(page, 'Kinds').click();
  await giveFile(page, 'Read a description file', EDS);
  await expect(page.getByText('Belloch: Pump drive D5; with display')).toBeVisible();
  await button(page, 'Put it on the shelf').click();
  await expect(button(page, 'Read a description file')).toBeVisible();
  await place(page, 'Plan').click();
  await button(page, 'Add devices').click();
  await pick(page, 'Kind', 'Pump drive D5; with display');
  await pick(page, 'How they get their address', 'DHCP by MAC');
  await add(page, 2, 'Pump {n}');
  await button(page, 'Add devices').click();
  await pick(page, 'Kind', 'Some other device');
  await pick(page, 'How they get their address', 'DHCP by MAC');
  await add(page, 2, 'Scale {n}');
}

const jobIn = (page: Page): string => /job\/([^/]+)/.exec(page.url())?.[1] ?? '';

/** Hands at the cabinets. */
const act = (server: TestServer, job: string, action: CabinetAction) =>
  api(server, 'POST', `/jobs/${job}/practice/cabinet`, { action });

const planIn = async (server: TestServer, job: string): Promise<Plan> =>
  planOf(docFromView(await api<PlanView>(server, 'GET', `/jobs/${job}/plan`)));

/** Hands that choose and press, by touch or by keys. */
interface Hands {
  readonly pick: (page: Page, label: string, title: string) => Promise<void>;
  readonly press: (page: Page, name: string) => Promise<void>;
}

const TOUCH: Hands = { pick, press: (page, name) => button(page, name).click() };

/** Names both surprises, which puts them right as somebody would. */
async function findSurprises(page: Page, plan: Plan, hands: Hands): Promise<void> {
  const site = siteOfPlan(plan, Number(SEED));
  const { mistakes } = withMistakes(plan, site, { kind: 'surprise', count: 2 }, Number(SEED));
  await expect(page.getByText('2 mistakes are in it; none was found.')).toBeVisible();
  for (const { kind, interfaceId } of mistakes) {
    await hands.pick(page, 'Mistake', MISTAKE_WORDS[kind]);
    const at = plan.devices.find(({ interfaces }) => interfaces[0]?.id === interfaceId);
    if (at) await hands.pick(page, 'At which device', at.title);
    await hands.press(page, 'That is wrong');
    // What was found stands below, with where it was.
    const where = at ? `${MISTAKE_WORDS[kind]}: ${at.title}` : MISTAKE_WORDS[kind];
    await expect(page.getByText(where, { exact: true }).last()).toBeVisible();
  }
  await expect(page.getByText('All 2 mistakes that were in it were found.')).toBeVisible();
}

/** One touch, then its switches are turned without power, and it is seen to come up. */
async function bySwitches(
  page: Page,
  server: TestServer,
  plan: Plan,
  title: string,
): Promise<void> {
  const job = jobIn(page);
  const device = plan.devices.find((one) => one.title === title);
  const [at] = device?.interfaces ?? [];
  const face = plan.kinds.find(({ id }) => id === device?.kindId)?.switches;
  const subnet = plan.subnets[0];
  if (!device || !at || !face || !subnet) throw new Error(`no switches: ${title}`);
  const { positions } = must(wantedSetting(face, device, at.address, subnet.prefix));
  await openCall(page, title);
  await button(page, 'Power off, turn, power on: watch it').click();
  await expect(page.getByText(/^Waiting to see .* come up/)).toBeVisible();
  await act(server, job, { kind: 'power', device: at.id, on: false });
  await act(server, job, { kind: 'turn', device: at.id, positions });
  await act(server, job, { kind: 'power', device: at.id, on: true });
  await button(page, 'It is this one').click();
  await expect(stage(page, 'pinned')).toBeVisible();
}

/** Bound by its label; given, kept, and seen again after its power was cut. @param keep what keeps its address */
async function byAsking(page: Page, server: TestServer, title: string, keep: () => Promise<void>) {
  const job = jobIn(page);
  const { devices } = await api<CabinetView>(server, 'GET', `/jobs/${job}/practice/cabinet`);
  const one = devices.find((device) => device.title === title);
  if (!one) throw new Error(`not there: ${title}`);
  await openCall(page, title);
  // Who was there before may have been given an address by whoever gives them to everybody: it asks anew.
  await act(server, job, { kind: 'power', device: one.id, on: false });
  await act(server, job, { kind: 'power', device: one.id, on: true });
  // The label says which of those that ask it is.
  await page.getByLabel('Type the MAC from the label, in any notation').fill(one.label);
  await button(page, /^Bind and give/).click();
  await keep();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  await act(server, job, { kind: 'power', device: one.id, on: false });
  await expect(page.getByText('Waiting to see it back')).toBeVisible();
  await act(server, job, { kind: 'power', device: one.id, on: true });
  await button(page, 'Prove it: ARP and ping').click();
  await expect(stage(page, 'proven')).toBeVisible();
}

test('phone: from an empty installation to eight devices proven and handed over', async ({
  page,
  server,
}) => {
  const touches = await countTouches(page);
  await page.goto(server.url);
  await firstSteps(page);
  expect(await touches()).toBeLessThanOrEqual(12 - 1);
  await ownKind(page);
  await planEight(page);
  const own = jobIn(page);

  await goTo(page, `${server.url}/job/${own}/wire`);
  await expect(page.getByText('This job has no wire yet')).toBeVisible();
  await page.getByRole('radio', { name: 'Two' }).click();
  await page.getByLabel(/^The number of a rehearsal/).fill(SEED);
  await button(page, 'Begin the rehearsal').click();
  await expect(page.getByRole('heading', { name: 'Rehearsal of Bottling line 9' })).toBeVisible();
  const job = jobIn(page);
  const plan = await planIn(server, job);
  expect(plan.devices).toHaveLength(8);
  await findSurprises(page, plan, TOUCH);

  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  for (const title of ['Dosing 1', 'Dosing 2', 'Dosing 3', 'Dosing 4'])
    await bySwitches(page, server, plan, title);
  await place(page, 'Assign').click();
  const before = await touches();
  for (const title of ['Pump 1', 'Pump 2'])
    await byAsking(page, server, title, async () => {
      await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
      await button(page, 'Now cut its power and watch').click();
    });
  // From the list to proven: its line, bind and give, keep it, cut its power, prove it; and once back to the list.
  expect((await touches()) - before).toBeLessThanOrEqual(2 * 5 + 2);
  for (const title of ['Scale 1', 'Scale 2'])
    await byAsking(page, server, title, async () => {
      const at = plan.devices.find((one) => one.title === title)?.interfaces[0]?.id ?? '';
      await expect(page.getByText(/Set it to keep its address/).first()).toBeVisible();
      await act(server, job, { kind: 'own-step', device: at });
      await button(page, 'Done at the device').click();
      await button(page, 'Now cut its power and watch').click();
    });

  await place(page, 'Prove').click();
  await button(page, 'Prove 8 devices').click();
  await expect(page.getByRole('heading', { name: '8 of 8 devices proven' })).toBeVisible();
  await place(page, 'Hand over').click();
  const csv = readFileSync(await saveFormat(page, 'Address list, CSV'), 'utf8');
  expect(csv.split('\r\n').filter((line) => line.includes(',proven,'))).toHaveLength(8);

  // Nothing of it counts for the job itself.
  await goTo(page, `${server.url}/job/${own}/prove`);
  await expect(page.getByRole('heading', { name: '0 of 8 devices proven' })).toBeVisible();
});

test('wide: the same beginning by keyboard alone, to both surprises found', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  await page.goto(server.url);
  await press(page, 'First steps');
  await write(page, page.getByLabel('Your name, written beside everything you decide'), 'Ida Venn');
  await press(page, 'Next');
  await write(page, page.getByLabel('What the job is called'), 'Bottling line 9');
  await press(page, 'Next');
  await write(page, page.getByLabel('Its name'), 'Line');
  await write(page, page.getByLabel('Its network'), '192.168.10.0 255.255.255.0');
  await press(page, 'Begin the job');
  await expect(page.getByRole('heading', { name: 'New devices' })).toBeVisible();

  await press(page, 'A kind of your own');
  await write(page, page.getByRole('textbox', { name: 'Its maker' }), 'Ollerby');
  await write(page, page.getByLabel('What the kind is called'), 'Dosing head');
  await tick(page, 'switches');
  await choose(page, 'How it comes from its maker', 'as its switches say');
  await press(page, 'Add a dial');
  await press(page, 'Add a dial');
  await write(page, page.getByLabel('What stands beside switch 1'), '×10');
  await write(page, page.getByLabel('What stands beside switch 2'), '×1');
  await write(page, page.getByLabel('to value (1)'), '99');
  await press(page, 'Make this kind');
  await expect(page.getByRole('heading', { name: 'New devices' })).toBeVisible();
  await write(page, page.getByLabel('How many'), '4');
  await write(page, page.getByLabel(/^What people call them/), 'Dosing {n}');
  await press(page, 'Add 4 devices');
  await expect(page.getByRole('gridcell', { name: /^Dosing 4/ }).first()).toBeVisible();
  await press(page, 'Add devices');
  await pickByKeys(page, 'Kind', 'Some other device');
  await write(page, page.getByLabel('How many'), '4');
  await write(page, page.getByLabel(/^What people call them/), 'Scale {n}');
  await press(page, 'Add 4 devices');
  await expect(page.getByRole('gridcell', { name: /^Scale 4/ }).first()).toBeVisible();

  // The wire by the field that finds everything.
  await page.keyboard.press('ControlOrMeta+k');
  await expect(page.getByLabel(/^A device, any part/)).toBeFocused();
  await page.keyboard.type('wire');
  await follow(page, page.getByRole('main').getByRole('link', { name: /^The wire/ }));
  await expect(page.getByText('This job has no wire yet')).toBeVisible();
  await choose(page, 'Mistakes to find', 'Two');
  await write(page, page.getByLabel(/^The number of a rehearsal/), SEED);
  await press(page, 'Begin the rehearsal');
  await expect(page.getByRole('heading', { name: 'Rehearsal of Bottling line 9' })).toBeVisible();
  const plan = await planIn(server, jobIn(page));
  expect(plan.devices).toHaveLength(8);
  await findSurprises(page, plan, { pick: pickByKeys, press });
});
