import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Browser } from '@playwright/test';
import type { AuthorityView } from '@ipsonomo/core/api';
import { findings } from './axe';
import { api, download, letBrowserIn, startServer, type TestServer } from './harness';
import { button, openDemo, PHONE, WIDE } from './pages';
import { CHROMIUM } from './playwright.config';

// A phone that trusts the laptop's authority opens the application encrypted, and then without a network; one that does not
// is warned by its browser, and works at the port that is not encrypted.

let server: TestServer;
let address = '';
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  server = await startServer('trust', { demo: true, host: '0.0.0.0' });
  const { port } = await api<AuthorityView>(server, 'GET', '/authority');
  address = `https://127.0.0.1:${port}`;
});
test.afterAll(() => server.stop());

/** A browser with a store of certificates of its own (NSS), in which the authority is, or is not. */
async function browserThat(trusts: boolean): Promise<Browser> {
  const home = mkdtempSync(join(tmpdir(), 'ipsonomo-nss-'));
  const store = join(home, '.pki', 'nssdb');
  mkdirSync(store, { recursive: true });
  execFileSync('certutil', ['-d', `sql:${store}`, '-N', '--empty-password']);
  if (trusts) {
    const file = join(home, 'authority.crt');
    writeFileSync(file, await download(server, '/authority.crt'));
    execFileSync('certutil', ['-d', `sql:${store}`, '-A', '-t', 'C,,', '-n', 'laptop', '-i', file]);
  }
  return chromium.launch({ ...CHROMIUM, env: { ...process.env, HOME: home } as never });
}

test('what to do stands on a page; the certificate has the fingerprint that the terminal shows', async ({
  page,
}) => {
  await letBrowserIn(page.context(), server);
  await page.goto(`${server.url}/trust`);
  await expect(page.getByRole('heading', { name: 'Trust this laptop' })).toBeVisible();
  for (const size of [PHONE, WIDE]) {
    await page.setViewportSize(size);
    expect(await findings(page)).toEqual([]);
  }
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    button(page, 'Take the certificate').click(),
  ]);
  const said = execFileSync('openssl', [
    ...['x509', '-inform', 'DER', '-in', await file.path(), '-noout', '-fingerprint', '-sha256'],
  ]).toString();
  const [, fingerprint = ''] = said.trim().split('=');
  await expect(page.getByText(fingerprint)).toBeVisible();
  expect(server.output()).toContain(fingerprint);
});

test('trusted, it is opened encrypted, keeps the application, and opens without the server', async () => {
  const browser = await browserThat(true);
  const context = await browser.newContext({ viewport: PHONE });
  await letBrowserIn(context, server, 'Mara Quist', address);
  const page = await context.newPage();
  await openDemo(page, { ...server, url: address });
  await expect
    .poll(() =>
      page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state),
    )
    .toBe('activated');
  await page.reload();
  await expect(button(page, 'Sludge valve block').first()).toBeVisible();
  const { url } = { url: page.url() };
  await server.kill();
  await page.close();
  const again = await context.newPage();
  await again.goto(url);
  await expect(again.getByText('! No server')).toBeVisible();
  await expect(button(again, 'Sludge valve block').first()).toBeVisible();
  await browser.close();
  await server.restart();
});

test('not trusted, the browser warns, and the other port works', async () => {
  const browser = await browserThat(false);
  const context = await browser.newContext({ viewport: PHONE });
  await letBrowserIn(context, server);
  const warned = await context.newPage();
  await expect(warned.goto(address)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  const page = await context.newPage();
  await page.goto(server.url);
  await expect(page.getByText('Tern Cove hatchery').first()).toBeVisible();
  await browser.close();
});
