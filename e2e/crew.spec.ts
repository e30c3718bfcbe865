import { isDeepStrictEqual } from 'node:util';
import { expect, test, type Browser, type Page } from '@playwright/test';
import type { EvidenceView, FieldView, HeardView, JobSummary, PlanView } from '@ipsonomo/core/api';
import { findings } from './axe';
import { DatabaseLink } from './database-link';
import { api, letBrowserIn, startServer, until, type TestServer } from './harness';
import { button, PHONE, place, WIDE } from './pages';

// Two laptops of a crew, each with a wire of its own, on one database: what is done at one is seen at the other at once,
// and one that is cut off from the database goes on, says so, and comes back by itself.

// One after the other, on the same two servers.
test.describe.configure({ mode: 'serial' });

let hall: TestServer;
let tower: TestServer;
let link: DatabaseLink;
test.beforeAll(async () => {
  hall = await startServer('crew', { demo: true, called: 'Hall 1', pace: 10 });
  link = await DatabaseLink.open(hall.databaseUrl);
  tower = await startServer('crew_tower', {
    ...{ demo: true, called: 'Tower', pace: 10, databaseUrl: link.url },
  });
});
test.afterAll(async () => {
  link.mend();
  for (const one of [tower, hall]) await one.stop();
  link.close();
});

const jobId = async (): Promise<string> => {
  const [job] = await api<JobSummary[]>(hall, 'GET', '/jobs');
  return job?.id ?? '';
};

async function phoneAt(browser: Browser, server: TestServer, person: string): Promise<Page> {
  const context = await browser.newContext({ viewport: PHONE });
  await letBrowserIn(context, server, person);
  const page = await context.newPage();
  await page.goto(`${server.url}/job/${await jobId()}/plan`);
  await expect(button(page, /^Drum filter drive 1/).first()).toBeVisible();
  return page;
}

async function rename(page: Page, from: string, to: string): Promise<void> {
  await button(page, from).first().click();
  await button(page, 'Change name or address').click();
  await page.getByLabel('What people call it').fill(to);
  await button(page, 'Save').click();
  await expect(page.getByRole('heading', { name: to })).toBeVisible();
}

test('what one plans the other sees at once; each sees the laptops, and a keeper ends all that is sent', async ({
  browser,
}) => {
  const mara = await phoneAt(browser, hall, 'Mara Quist');
  const ilse = await phoneAt(browser, tower, 'Ilse Brandt');
  await rename(mara, 'Sludge valve block', 'Sludge valves, west');
  await expect(button(ilse, 'Sludge valves, west').first()).toBeVisible({ timeout: 5_000 });

  const job = await jobId();
  await ilse.goto(`${tower.url}/job/${job}/assign`);
  await button(ilse, 'Start listening').click();
  await api(tower, 'POST', `/jobs/${job}/wire/arm`, { minutes: 30 });
  await mara.goto(`${hall.url}/job/${job}/wire`);
  await expect(mara.getByRole('heading', { name: 'Laptops of the crew' })).toBeVisible();
  await expect(mara.getByText(/practice site · answering \d+ devices? · for/i)).toBeVisible();
  for (const size of [PHONE, WIDE]) {
    await mara.setViewportSize(size);
    expect(await findings(mara)).toEqual([]);
  }
  await button(mara, 'Fall silent on all laptops').click();
  await expect(mara.getByText('Hall 1, Tower fell silent.')).toBeVisible();
  await expect(ilse.getByText(/Mara Quist at Hall 1 had every laptop fall silent/)).toBeVisible();
  for (const page of [mara, ilse]) await page.context().close();
});

test('cut off from the database a laptop goes on, keeps what is done and seen, and comes back by itself', async ({
  browser,
}) => {
  const job = await jobId();
  const ilse = await phoneAt(browser, tower, 'Ilse Brandt');
  await place(ilse, 'Assign').click();
  const power = (on: boolean) =>
    api(tower, 'POST', `/jobs/${job}/practice/cabinet`, { action: { kind: 'power-all', on } });
  await api(tower, 'POST', `/jobs/${job}/wire/arm`, { minutes: 30 });
  await power(true);
  const asking = await until('somebody asks', async () => {
    const [first] = await api<HeardView[]>(tower, 'GET', `/jobs/${job}/wire/heard`);
    return first;
  });
  const { things } = await api<PlanView>(hall, 'GET', `/jobs/${job}/plan`);
  const drive = things.device.find((one) => one['title'] === 'Drum filter drive 1');
  const at = String(things.interface.find((one) => one['deviceId'] === drive?.['id'])?.['id']);
  const { mac } = asking;
  const wire = () => api<FieldView>(tower, 'GET', `/jobs/${job}/wire`);
  const { answers } = await wire();
  await api(hall, 'POST', `/jobs/${job}/interfaces/${at}/bind`, { mac, label: mac });
  await power(false);
  // A wire that hears of a change and cannot read it falls silent, and rightly so.
  await until('the tower knows it', async () => (await wire()).answers > answers);
  link.cut();
  await expect(ilse.getByText(/The database of the crew is out of reach since/)).toBeVisible({
    timeout: 30_000,
  });
  // The hall knows that it does not know.
  const mara = await phoneAt(browser, hall, 'Mara Quist');
  await mara.goto(`${hall.url}/job/${job}/wire`);
  await expect(mara.getByText(/not heard of since/)).toBeVisible({ timeout: 60_000 });

  // What was begun goes on until somebody ends it, which needs no database; what is planned now nobody here knows.
  expect((await wire()).answeringUntil).not.toBeNull();
  await button(ilse, 'Fall silent').click();
  await until('it is silent', async () => (await wire()).answeringUntil === null);
  const arm = () => api(tower, 'POST', `/jobs/${job}/wire/arm`, { minutes: 30 });
  await expect(arm()).rejects.toThrow('store.away');

  await place(ilse, 'Plan').click();
  await rename(ilse, 'Sludge valves, west', 'Sludge valves, old');
  await expect(ilse.getByText(/1 act waits here/)).toBeVisible();
  // A page that is opened now is told what was known.
  const again = await ilse.context().newPage();
  await again.goto(`${tower.url}/job/${job}/plan`);
  await expect(button(again, 'Sludge valves, old').first()).toBeVisible();
  await again.close();
  // Whoever asks on its wire is heard, and that is kept on the laptop.
  const cutAt = asking.lastAt;
  await power(true);
  await until('it asks again', async () =>
    (await api<HeardView[]>(tower, 'GET', `/jobs/${job}/wire/heard`)).some(
      (one) => one.mac === mac && one.lastAt > cutAt + 60_000,
    ),
  );

  link.mend();
  await expect(ilse.getByText(/out of reach since/)).toBeHidden({ timeout: 30_000 });
  await expect(ilse.getByText(/1 act waits here/)).toBeHidden({ timeout: 30_000 });
  const titles = async () =>
    (await api<PlanView>(hall, 'GET', `/jobs/${job}/plan`)).things.device.map(
      (one) => one['title'],
    );
  await until('the change at the hall', async () =>
    (await titles()).includes('Sludge valves, old'),
  );
  await expect(mara.getByText(/not heard of since/)).toBeHidden({ timeout: 30_000 });
  await until('what it asked meanwhile is evidence at the hall', async () =>
    (await api<EvidenceView[]>(hall, 'GET', `/jobs/${job}/interfaces/${at}/evidence`)).some(
      (one) => one.kind === 'asked' && one.at > cutAt + 60_000,
    ),
  );
  await arm();
  for (const page of [mara, ilse]) await page.context().close();
});

test('where no network joins them, a stick makes two laptops one: both ways, with what both changed', async ({
  browser,
}) => {
  // A laptop with a database of its own.
  const shed = await startServer('crew_shed', { demo: false, called: 'Shed' });
  const job = await jobId();
  const mara = await phoneAt(browser, hall, 'Mara Quist');
  const context = await browser.newContext({ viewport: PHONE });
  await letBrowserIn(context, shed, 'Ova Lindt');
  const ova = await context.newPage();

  await mara.goto(`${hall.url}/job/${job}/join`);
  const carried = await written(mara);
  await ova.goto(shed.url);
  await taken(ova, 'Take in a job of another laptop …', carried);
  await expect(
    ova.getByRole('heading', { name: 'Another laptop without a network' }),
  ).toBeVisible();
  await expect(ova.getByText(/^Hall 1: \d+ revisions? and/).first()).toBeVisible();

  await ova.goto(`${shed.url}/job/${job}/plan`);
  await rename(ova, 'Drum filter drive 2', 'Drive of the shed');
  await mara.goto(`${hall.url}/job/${job}/plan`);
  await rename(mara, 'Drum filter drive 2', 'Drive of the hall');

  await ova.goto(`${shed.url}/job/${job}/join`);
  const back = await written(ova);
  await mara.goto(`${hall.url}/job/${job}/join`);
  await taken(mara, 'Take in what another laptop wrote', back);
  await expect(mara.getByText('Shed: 1 revision and no piece of evidence').first()).toBeVisible();
  await expect(mara.getByText('Both changed this: decide which stands')).toBeVisible();
  for (const size of [PHONE, WIDE]) {
    await mara.setViewportSize(size);
    expect(await findings(mara)).toEqual([]);
  }
  await button(mara, 'Take the other').click();
  await expect(mara.getByText('Both changed this: decide which stands')).toBeHidden();

  const forth = await written(mara);
  await taken(ova, 'Take in what another laptop wrote', forth);
  const titles = async (server: TestServer) =>
    (await api<PlanView>(server, 'GET', `/jobs/${job}/plan`)).things.device
      .map((one) => String(one['title']))
      .sort();
  const ofHall = await titles(hall);
  await until('the same plan at both', async () => isDeepStrictEqual(await titles(shed), ofHall));
  await expect(ova.getByText('Both changed this: decide which stands')).toBeHidden();
  for (const page of [mara, ova]) await page.context().close();
  await shed.stop();
});

/** The file that a laptop writes for another. */
async function written(page: Page): Promise<string> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    button(page, 'Write what this laptop knows').click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.bundle\.gz$/);
  return file.path();
}

async function taken(page: Page, by: string, file: string): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(page, by).click()]);
  await chooser.setFiles(file);
}
