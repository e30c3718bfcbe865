import { expect, type BrowserContext, type Page } from '@playwright/test';
import type { PlanView } from '@ipsonomo/core/api';
import type { TestServer } from './harness';

// What a person does on the pages, named as a person would name it.

export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

/** Every page of a job that stands for itself; those of one device, call or subnet come beside them. */
export const PAGES = [
  ...[
    'plan',
    'assign',
    'prove',
    'hand-over',
    'snags',
    'revisions',
    'kinds',
    'wire',
    'cabinet',
    'rehearsal',
  ],
  ...['routes', 'picture', 'codes', 'controller', 'desk', 'vigil', 'runs', 'import', 'drill'],
  ...['known', 'written', 'tools'],
  ...['help'],
  ...['there-and-back', 'lanes', 'new-devices', 'new-subnet', 'new-kind', 'how-long', 'copy'],
];

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** By its whole name; the line of a device by its title, behind which its address and stage are said. */
export const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', {
    name: typeof name === 'string' ? new RegExp(`^${escaped(name)}(, |$)`) : name,
  });
/** A tool of Prove, from that page: on a phone they have a page of their own. */
export async function openTool(page: Page, name: string): Promise<void> {
  const tool = button(page, name);
  await expect(tool.or(button(page, /^Tools/))).toBeVisible();
  if (!(await tool.isVisible())) await button(page, /^Tools/).click();
  await tool.click();
}

export const place = (page: Page, name: string) =>
  page.getByRole('navigation').getByRole('link', { name: new RegExp(`^${name}`) });

/** Goes to an address; the page may change its own just then, and what it breaks off is tried again. */
export const goTo = (page: Page, url: string): Promise<void> =>
  expect(async () => {
    await page.goto(url);
  }).toPass({ timeout: 60_000 });

/** The second person's page of each browser, which stays open beside the first. */
const cabinets = new WeakMap<BrowserContext, Page>();

/** Does something at the cabinets in a page of its own, as a second person would. */
export async function atCabinet(page: Page, act: (cabinet: Page) => Promise<void>): Promise<void> {
  const before = cabinets.get(page.context());
  const cabinet = before ?? (await page.context().newPage());
  cabinets.set(page.context(), cabinet);
  const url = page.url().replace(/(\/job\/[^/]+).*/, '$1/cabinet');
  if (cabinet.url() !== url) await goTo(cabinet, url);
  await act(cabinet);
}

export async function powerCycle(
  page: Page,
  device: string,
  wait: () => Promise<void>,
): Promise<void> {
  await atCabinet(page, async (cabinet) => {
    await button(cabinet, `Power off: ${device}`).click();
    await expect(button(cabinet, `Power on: ${device}`)).toBeVisible();
    await wait();
    await button(cabinet, `Power on: ${device}`).click();
    await expect(button(cabinet, `Power off: ${device}`)).toBeVisible();
  });
}

export async function openDemo(page: Page, server: TestServer): Promise<void> {
  await page.goto(server.url);
  await page.getByLabel('Your name, written beside everything you decide').fill('Mara Quist');
  await page.getByRole('button', { name: 'Tern Cove hatchery', exact: true }).click();
  await expect(page.getByText('Filter hall', { exact: true }).first()).toBeVisible();
  // An address that is gone to while the page still changes its own is not reached.
  await expect(page).toHaveURL(/\/job\/[^/]+\/plan/);
}

/** Opens the demo and listens on its practice site. */
export async function listenInDemo(page: Page, server: TestServer): Promise<void> {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
}

/** Opens the call of a device; the one that is next stands apart from the list. */
export async function openCall(page: Page, title: string): Promise<void> {
  await place(page, 'Assign').click();
  await button(page, title)
    .or(button(page, `Go to ${title}`))
    .first()
    .click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
}

/** How far the device of this page has come. */
export const stage = (page: Page, name: string) => page.getByLabel(`stage: ${name}`).first();

/** Chooses one of many. */
export async function pick(page: Page, label: string, title: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: new RegExp(`^${label}(:|$)`) }).click();
  await page.getByRole('option', { name: title }).first().click();
}

/** Gives a page the file that its button asks for. */
export async function giveFile(
  page: Page,
  title: string,
  file: string | { readonly name: string; readonly bytes: Buffer },
): Promise<void> {
  const asked = page.waitForEvent('filechooser');
  await button(page, title).click();
  const chooser = await asked;
  if (typeof file === 'string') await chooser.setFiles(file);
  else
    await chooser.setFiles({
      ...{ name: file.name, mimeType: 'application/octet-stream', buffer: file.bytes },
    });
}

/** Holds the label against the heard MAC, whichever of several is shown at first. */
export async function holdLabel(page: Page, mac: string, label: string): Promise<void> {
  const shown = page.getByLabel([...mac.replace(/:/g, '').toUpperCase()].join(' '));
  await button(page, `hold ${mac} against the label`).or(shown).first().click();
  await page.getByLabel('Type the MAC from the label, in any notation').fill(label);
}

/** Errors of a page that a person would not see but that are there. */
export function watchErrors(page: Page, errors: string[]): void {
  page.on('pageerror', (error) => errors.push(String(error)));
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text());
  });
}

/** A refused or failed request is logged by the browser itself; the page shows it as a sentence. */
export const unexpected = (errors: readonly string[]): readonly string[] =>
  errors.filter(
    (text) =>
      !/status of [45]\d\d|ERR_CONNECTION|ERR_INCOMPLETE|ERR_EMPTY|ERR_INTERNET_DISCONNECTED|when fetching the script/.test(
        text,
      ),
  );

/** One of many, found by a part of its name. */
export async function choose(page: Page, label: string, title: string): Promise<void> {
  const field = page.getByRole('combobox', { name: label, exact: true });
  await field.click();
  await field.fill(title);
  await page.getByRole('option', { name: title }).first().click();
}

/** The job of a page as its server has it: what a second person would change. */
export async function jobOf(
  page: Page,
): Promise<{ readonly api: string; readonly plan: PlanView }> {
  const { origin, pathname } = new URL(page.url());
  const api = `${origin}/api/jobs/${/job\/([^/]+)/.exec(pathname)?.[1] ?? ''}`;
  const plan = (await (await page.request.get(`${api}/plan`)).json()) as PlanView;
  return { api, plan };
}

/** On the page Hand over: what is wrong leaves all the same, where something is. */
export async function leaveAllTheSame(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { name: 'For IT' })).toBeVisible();
  const toggle = page.getByRole('checkbox', { name: 'It leaves all the same' });
  if (await toggle.isVisible()) await toggle.click();
}

/** Saves what a button saves. @returns where it lies */
export async function saved(page: Page, name: RegExp): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name }).click();
  return (await download).path();
}

/** One format, looked at and taken. @returns where it lies */
export async function saveFormat(page: Page, title: string): Promise<string> {
  await leaveAllTheSame(page);
  await button(page, `Look at: ${title}`).click();
  return saved(page, /^Save /);
}
