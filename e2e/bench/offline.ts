import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test';
import type { EvidenceView, PlanView } from '@ipsonomo/core/api';
import { api, letBrowserIn, startServer, until, type TestServer } from '../harness';
import { CHROMIUM } from '../playwright.config';
import { median, type Figure } from './figures';

// Without a network: how soon the application opens, and whether all that was done arrives.

const PHONE = { width: 390, height: 844 };
/** A phone in a hall is so many times as slow. */
const SLOWER = 4;
const OPENINGS = 5;

/** Days without a network, with five acts each; 200 of them for the figure. */
const DAYS = Number(process.env['BENCH_DAYS'] ?? 40);
const ACTS = 5;
/** The tab is closed at any moment within these milliseconds after the last act. */
const LONGEST = 120;

async function contextOf(browser: Browser, server: TestServer): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport: PHONE });
  await letBrowserIn(context, server);
  return context;
}

const isKept = (page: Page): Promise<boolean> =>
  page.evaluate(async () => {
    const known = await navigator.serviceWorker.getRegistration();
    return known?.active?.state === 'activated';
  });

/** From the address typed to the first device of the plan, with no server at all. */
async function opening(server: TestServer, browser: Browser, job: string): Promise<Figure> {
  const context = await contextOf(browser, server);
  const page = await context.newPage();
  const url = `${server.url}/job/${job}/plan`;
  const first = (on: Page) => on.getByText('Drum filter drive 1').first().waitFor();
  await page.goto(url);
  await first(page);
  await until('the application is kept', () => isKept(page));
  await page.reload();
  await first(page);
  await server.kill();
  await page.close();
  const times: number[] = [];
  for (let time = 0; time < OPENINGS; time += 1) {
    const next = await context.newPage();
    const session = await context.newCDPSession(next);
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    const begun = performance.now();
    await next.goto(url);
    await first(next);
    times.push(performance.now() - begun);
    await next.close();
  }
  await context.close();
  await server.restart();
  const seconds = median(times) / 1000;
  return {
    what: `opened without a network, a processor ${SLOWER} × slower, until the plan is there`,
    ours: `${seconds.toFixed(1)} s`,
    reference: '',
    wanted: '≤ 1 s',
    isReached: seconds <= 1,
  };
}

/** How many acts the page says that it keeps. */
const keptOn = (page: Page): Promise<number> =>
  page.getByText('said: given its address by hand').count();

/** How many acts its browser has on its disk. */
const keptIn = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opened = indexedDB.open('ipsonomo');
        opened.onerror = () => reject(new Error('no database'));
        opened.onsuccess = () => {
          const counted = opened.result.transaction('waiting').objectStore('waiting').count();
          counted.onsuccess = () => {
            opened.result.close();
            resolve(counted.result);
          };
        };
      }),
  );

async function soak(server: TestServer, browser: Browser, job: string): Promise<Figure> {
  const { things } = await api<PlanView>(server, 'GET', `/jobs/${job}/plan`);
  const camera = things.device.find((one) => one['title'] === 'Inspection camera');
  const at = things.interface.find((one) => one['deviceId'] === camera?.id)?.id;
  const arrived = async () => {
    const all = await api<EvidenceView[]>(server, 'GET', `/jobs/${job}/interfaces/${at}/evidence`);
    return all.filter(({ kind }) => kind === 'said-given').length;
  };
  const context = await contextOf(browser, server);
  let told = 0;
  let pressed = 0;
  for (let day = 0; day < DAYS; day += 1) {
    const page = await context.newPage();
    await page.goto(`${server.url}/job/${job}/call/${at}`);
    const button = page.getByRole('button', { name: 'I only say it is done' });
    await button.waitFor();
    await until('the day before has arrived', async () => (await keptIn(page)) === 0);
    await context.setOffline(true);
    for (let act = 0; act < ACTS; act += 1) await button.click();
    await page.waitForTimeout(Math.random() * LONGEST);
    // Read and closed: what the page said by then is what a person relies on.
    told += await keptOn(page);
    pressed += ACTS;
    await page.close();
    await context.setOffline(false);
  }
  const page = await context.newPage();
  await page.goto(`${server.url}/job/${job}/call/${at}`);
  await until('nothing waits', async () => (await keptIn(page)) === 0);
  const come = await arrived();
  await context.close();
  return {
    what: `${DAYS} times without a network, ${ACTS} acts each, the tab closed at any moment: said to be kept, and arrived`,
    ours: `${told} kept, ${come} arrived of ${pressed} pressed`,
    reference: '',
    wanted: 'all that was kept, each once',
    isReached: come >= told && come <= pressed,
  };
}

export async function offlineFigures(): Promise<readonly Figure[]> {
  const server = await startServer('bench_offline', { demo: true });
  const browser = await chromium.launch(CHROMIUM);
  try {
    const [job] = await api<{ id: string }[]>(server, 'GET', '/jobs');
    const id = job?.id ?? '';
    return [await opening(server, browser, id), await soak(server, browser, id)];
  } finally {
    await browser.close();
    await server.stop();
  }
}
