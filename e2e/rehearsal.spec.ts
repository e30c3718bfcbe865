import { expect } from '@playwright/test';
import type { CabinetView, JobSummary, RehearsalView } from '@ipsonomo/core/api';
import { test } from './demo';
import { api } from './harness';
import { jobView } from './jobs';
import { button, goTo, holdLabel, openDemo, pick, place, powerCycle, WIDE } from './pages';

// R-REHEARSE: a plan is rehearsed on a site made of it, before the drive to the real one.

const DEVICE = 'Oxygen valve block';

test('phone: a plan is rehearsed from the label to the proof, and its own job knows nothing of it', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  const own = page.url().replace(/.*\/job\/([^/]+)\/.*/, '$1');
  await goTo(page, `${server.url}/job/${own}/wire`);
  await button(page, 'Begin the rehearsal').click();
  await expect(
    page.getByRole('heading', { name: 'Rehearsal of Tern Cove hatchery' }),
  ).toBeVisible();
  await expect(page.getByText('No mistakes were put into it.')).toBeVisible();
  const job = page.url().replace(/.*\/job\/([^/]+)\/.*/, '$1');
  expect(job).not.toBe(own);

  // Assigned as on a real site: heard, held against its label, given, kept, proven.
  const { devices } = await api<CabinetView>(server, 'GET', `/jobs/${job}/practice/cabinet`);
  const label = devices.find(({ title }) => title === DEVICE)?.label ?? '';
  await place(page, 'Assign').click();
  await button(page, 'Start listening').click();
  await button(page, DEVICE).click();
  await holdLabel(page, label.toLowerCase().replaceAll('-', ':'), label);
  await expect(page.getByText('Label and wire agree.')).toBeVisible();
  await button(page, 'Bind and give 172.22.40.104').click();
  await button(page, 'Tell it to keep the address').click({ timeout: 120_000 });
  await button(page, 'Now cut its power and watch').click();
  await expect(page.getByText('Waiting to see it gone')).toBeVisible();
  await powerCycle(page, DEVICE, () =>
    expect(page.getByText('Waiting to see it back')).toBeVisible(),
  );
  await button(page, 'Prove it: ARP and ping').click();
  await expect(page.getByText(/found as planned, ping/).first()).toBeVisible();
  await expect(page.getByText('rehearsal').first()).toBeVisible();

  // What was seen there is evidence of the rehearsal, and of nothing else.
  const stageIn = async (jobId: string) =>
    (await jobView(server, jobId)).devices.find(({ title }) => title === DEVICE)?.interfaces[0];
  expect(await stageIn(job)).toMatchObject({ stage: 'proven' });
  expect(await stageIn(own)).toMatchObject({ stage: 'planned' });
  expect((await stageIn(own))?.mac ?? null).toBeNull();
});

test('wide: what is wrong is named and put right; the rest is told at the end', async ({
  page,
  server,
}) => {
  await page.setViewportSize(WIDE);
  const [first] = await api<readonly JobSummary[]>(server, 'GET', '/jobs');
  const which = ['cable-out', 'wrong-label', 'lending-router'];
  const { id } = await api<{ id: string }>(server, 'POST', `/jobs/${first?.id}/rehearsals`, {
    ...{ wish: { kind: 'chosen', which }, seed: 4 },
  });
  await openDemo(page, server);
  await goTo(page, `${server.url}/job/${id}/rehearsal`);
  await expect(page.getByText('3 mistakes are in it; none was found.')).toBeVisible();
  const { devices } = await api<CabinetView>(server, 'GET', `/jobs/${id}/practice/cabinet`);
  const out = devices.find(({ cable }) => !cable)?.title ?? '';

  await pick(page, 'Mistake', 'It drops out again and again');
  await pick(page, 'At which device', out);
  await button(page, 'That is wrong').click();
  await expect(page.getByText('Nothing of the kind is wrong there')).toBeVisible();
  await pick(page, 'Mistake', 'Its cable is out');
  await button(page, 'That is wrong').click();
  await expect(page.getByText(`Its cable is out: ${out}`)).toBeVisible();
  await expect(page.getByText('3 mistakes are in it; 1 was found.')).toBeVisible();
  await pick(page, 'Mistake', /gives addresses to everybody/);
  await button(page, 'That is wrong').click();
  await expect(page.getByText('3 mistakes are in it; 2 were found.')).toBeVisible();

  await button(page, 'End the search and see the rest').click();
  await button(page, 'Yes, end the search').click();
  await expect(page.getByText(/^Its label is not its own: /)).toBeVisible();
  await expect(page.getByText('1 time somebody named what was not wrong.')).toBeVisible();
  const { missed } = await api<RehearsalView>(server, 'GET', `/jobs/${id}/rehearsal`);
  expect(missed.map(({ kind }) => kind)).toEqual(['wrong-label']);
});
