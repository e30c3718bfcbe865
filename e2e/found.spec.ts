import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './demo';
import { api } from './harness';
import { button, giveFile, goTo, listenInDemo } from './pages';

// A plan from nothing but what was heard, and what was heard held against a plan.

const CAPTURE = join(__dirname, '../core/test/data/udhcpc-with-dnsmasq.pcap');

test('a job begins with a capture; what was found is meant so; what is heard here is held against the plan', async ({
  page,
  server,
}) => {
  await listenInDemo(page, server);
  // The capture is read once: somebody whom nobody planned has asked by then.
  await expect(page.getByText('as “winch-b”')).toBeVisible();
  const job = page.url().replace(/(\/job\/[^/]+).*/, '$1');

  await test.step('what is heard in a job is held against its plan', async () => {
    await goTo(page, `${job}/known`);
    await button(page, /^Capture of /)
      .first()
      .click();
    await expect(page.getByText(/: \d+ stations in \d+ frames/)).toBeVisible();
    await expect(page.getByText(/^Nobody planned it · \d+$/)).toBeVisible();
  });

  await test.step('a job without a subnet begins with a capture', async () => {
    const { id } = await api<{ id: string }>(server, 'POST', '/jobs', { name: 'Found hall' });
    await goTo(page, `${new URL(page.url()).origin}/job/${id}/plan`);
    await button(page, 'Begin with what is there already').click();
    await giveFile(page, 'Choose a file', {
      ...{ name: 'letter.pcap', bytes: Buffer.from('no capture') },
    });
    await expect(
      page.getByText('letter.pcap is no capture, neither pcap nor pcapng.'),
    ).toBeVisible();
    await giveFile(page, 'Choose a file', { name: 'cell.pcap', bytes: readFileSync(CAPTURE) });
    await expect(page.getByText('cell.pcap: 2 stations in 4 frames.')).toBeVisible();
    await button(page, 'Take 1 device and 1 subnet into the plan, as found').click();
    await expect(page.getByText(/^One device and one subnet are in the plan now/)).toBeVisible();
    await expect(page.getByText(/^As planned · 1$/)).toBeVisible();
    await goTo(page, page.url().replace(/known$/, 'snags'));
    await expect(page.getByText(/was found \(heard in cell\.pcap\)/).first()).toBeVisible();
    await button(page, /^Mend all of these/)
      .first()
      .click();
    await button(page, 'Mend 2 snags').click();
    await expect(page.getByText(/was found \(heard in/)).toHaveCount(0);
  });
});
