import { chromium, type Page } from '@playwright/test';
import type { FieldView, HeardView } from '@ipsonomo/core/api';
import { bigJob } from '../crowd';
import { letBrowserIn, api, startServer, type TestServer } from '../harness';
import { CHROMIUM } from '../playwright.config';
import type { Figure } from './figures';

// A phone in a plant of thousands, while hundreds of strangers ask.

const STRANGERS = 300;

const SILENT = `
  window.EventSource = class {
    readyState = 1;
    addEventListener() {}
    close() {}
  };`;

/** What a page is told at its beginning, with so many strangers in it: there is no practice site of that size. */
export async function withStrangers(page: Page, jobId: string): Promise<void> {
  // What is told afterwards is of the server's own wire, on which there are none.
  await page.addInitScript(SILENT);
  await page.route('**/api/state', async (route) => {
    const answer = await route.fetch();
    const state = (await answer.json()) as { news: [string, unknown][] };
    const now = Date.now();
    const clients = Array.from(
      { length: STRANGERS },
      (_, at): HeardView =>
        ({
          ...{
            mac: `02:00:5e:01:${(at >> 8).toString(16).padStart(2, '0')}:${(at & 255).toString(16).padStart(2, '0')}`,
          },
          ...{
            protocol: at % 3 === 0 ? 'DHCP' : 'BootP',
            message: 'DISCOVER',
            hostName: null,
            vendorClass: null,
          },
          ...{
            clientId: null,
            address: null,
            port: null,
            count: 3,
            firstAt: now - 60_000,
            lastAt: now - at * 50,
          },
          ...{ isAnswered: false },
        }) as unknown as HeardView,
    );
    const news = state.news.map(([name, data]) => {
      if (name === 'heard') return [name, { all: true, clients, forgotten: [] }];
      if (name === 'field')
        return [name, { ...(data as FieldView), runId: 'run', jobId, source: 'practice' }];
      return [name, data];
    });
    await route.fulfill({ json: { ...state, news } });
  });
}

const WATCH = `
  window.long_ = [];
  new PerformanceObserver((list) => {
    for (const one of list.getEntries()) window.long_.push(one.duration);
  }).observe({ entryTypes: ['longtask'] });`;

const SCREENS = [
  ['plan', 'Look up a device'],
  ['assign', 'calls left'],
  ['prove', 'devices proven'],
  ['snags', 'Snags'],
  ['hand-over', 'Address list'],
] as const;

async function screen(
  server: TestServer,
  jobId: string,
  [path, words]: (typeof SCREENS)[number],
  most: number,
): Promise<readonly Figure[]> {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await letBrowserIn(page.context(), server);
  await withStrangers(page, jobId);
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const begun = performance.now();
  await page.goto(`${server.url}/job/${jobId}/${path}`);
  await page.getByText(words).first().waitFor({ timeout: 120_000 });
  const millis = performance.now() - begun;
  await page.waitForTimeout(2000);
  await page.evaluate(WATCH);
  await page.waitForTimeout(6000);
  await page.mouse.move(200, 400);
  for (let turn = 0; turn < 30; turn += 1) {
    await page.mouse.wheel(0, 400);
    await page.waitForTimeout(30);
  }
  const long = await page.evaluate<number[]>('window.long_');
  const { metrics } = await session.send('Performance.getMetrics');
  const of = (name: string) => metrics.find((one) => one.name === name)?.value ?? 0;
  await session.send('HeapProfiler.enable');
  await session.send('HeapProfiler.collectGarbage');
  const after = await session.send('Performance.getMetrics');
  const heap = (after.metrics.find((one) => one.name === 'JSHeapUsedSize')?.value ?? 0) / 1e6;
  await browser.close();
  const longest = Math.max(0, ...long);
  return [
    {
      what: `phone, ${path}: usable (${of('Nodes')} nodes, heap ${heap.toFixed(0)} MB)`,
      ours: `${(millis / 1000).toFixed(1)} s`,
      reference: '',
      wanted: `≤ ${most / 1000} s, ≤ 120 MB`,
      isReached: millis <= most && heap <= 120,
    },
    {
      what: `phone, ${path}: longest task of 7 s while the clock ticks and it is scrolled (${long.length} over 50 ms)`,
      ours: `${longest.toFixed(0)} ms`,
      ...{ reference: '', wanted: '≤ 50 ms', isReached: longest <= 50 },
    },
  ];
}

export async function screenFigures(): Promise<readonly Figure[]> {
  const server = await startServer('bench_screens', { demo: true });
  try {
    const figures: Figure[] = [];
    for (const [devices, most] of [
      [5000, 2000],
      [20_000, 4000],
    ] as const) {
      if (process.env['BENCH_SMALL'] && devices > 5000) continue;
      const jobId = await bigJob(server, devices);
      await api(server, 'GET', `/jobs/${jobId}/progress`);
      for (const one of SCREENS) {
        const own = await screen(server, jobId, one, most);
        figures.push(
          ...own.map((each) => ({
            ...each,
            what: `${devices} devices, ${STRANGERS} strangers: ${each.what}`,
          })),
        );
      }
    }
    return figures;
  } finally {
    await server.stop();
  }
}
