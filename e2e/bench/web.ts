import { chromium } from '@playwright/test';
import type { JobView } from '@ipsonomo/core';
import { api, letBrowserIn, startServer, type TestServer } from '../harness';
import { CHROMIUM } from '../playwright.config';
import { percentile, type Figure } from './figures';

/** Everything the first page takes over the network, as transferred, with an empty cache. */
async function firstLoad(server: TestServer): Promise<Figure> {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await letBrowserIn(page.context(), server);
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  let bytes = 0;
  session.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  const start = performance.now();
  await page.goto(server.url);
  await page.getByText('Tern Cove hatchery').first().waitFor();
  const millis = performance.now() - start;
  await page.waitForTimeout(1500);
  await browser.close();
  const kilobytes = bytes / 1000;
  return {
    what: `first load of the app as transferred (shown after ${(millis / 1000).toFixed(1)} s)`,
    ours: `${kilobytes.toFixed(0)} KB`,
    reference: '',
    wanted: '≤ 900 KB',
    isReached: kilobytes <= 900,
  };
}

const ROUNDS = 60;

async function apiTimes(server: TestServer): Promise<Figure> {
  const [job] = await api<{ id: string }[]>(server, 'GET', '/jobs');
  const path = `/jobs/${job?.id}`;
  const { devices } = await api<JobView>(server, 'GET', path);
  const at = devices[0]?.interfaces[0]?.id;
  await api(server, 'POST', '/field/listen', { jobId: job?.id });
  const calls: readonly (readonly [method: string, path: string, body?: unknown])[] = [
    ['GET', '/jobs'],
    ['GET', path],
    ['GET', `${path}/interfaces/${at}/evidence`],
    ['GET', `${path}/runs`],
    ['GET', `${path}/addresses.csv`],
    ['GET', '/field'],
    ['GET', '/field/heard'],
    ['GET', '/field/adapters'],
    ['GET', '/practice/cabinet'],
    ['PATCH', `${path}/devices/${devices[0]?.id}`, { area: 'Filter hall' }],
    ['POST', `${path}/check`, { interfaceIds: [at] }],
    ['POST', '/field/arm', { minutes: 1 }],
    ['POST', '/field/silence', {}],
  ];
  let slowest = { name: '', p95: 0 };
  for (const [method, where, body] of calls) {
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      const start = performance.now();
      await api(server, method, where, body);
      times.push(performance.now() - start);
    }
    const p95 = percentile(times, 0.95);
    if (p95 > slowest.p95)
      slowest = { name: `${method} ${where.replace(/[0-9a-f-]{36}/g, '…')}`, p95 };
  }
  return {
    what: `every API answer on the demo data at p95; slowest of ${calls.length}: ${slowest.name}`,
    ours: `${slowest.p95.toFixed(0)} ms`,
    reference: '',
    wanted: '< 100 ms',
    isReached: slowest.p95 < 100,
  };
}

export async function webFigures(): Promise<readonly Figure[]> {
  const server = await startServer('bench_web', { demo: true });
  try {
    return [await firstLoad(server), await apiTimes(server)];
  } finally {
    await server.stop();
  }
}
