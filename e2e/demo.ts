import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test as base, type Page } from '@playwright/test';
import {
  COVERAGE,
  letBrowserIn,
  ownCluster,
  startServer,
  type Cluster,
  type TestServer,
} from './harness';
import { PHONE, unexpected, watchErrors } from './pages';

interface Fixtures {
  /** A server with the demo job and the practice site, of this test's own. */
  readonly server: TestServer;
  /** The PostgreSQL of this test's own, where it may be stopped. */
  readonly cluster: Cluster | undefined;
  /** Errors of every page that was watched; the test fails with them at its end. */
  readonly errors: string[];
}

interface Options {
  /** Whether the server begins with the demo job, or with none. */
  readonly demo: boolean;
  /** How many times as fast the practice site lives. */
  readonly pace: number;
  /** Whether its browser has a cookie already, as one that was let in before. */
  readonly isLetIn: boolean;
  /** Who sits before it; empty where nobody said so yet. */
  readonly person: string;
  /** Whether its database may be stopped in the middle: it then has a PostgreSQL of its own. */
  readonly stopsDatabase: boolean;
}

/** Has V8 tell what it runs in this page and in all that are opened beside it. */
async function mapPages(first: Page, folder: string): Promise<() => Promise<void>> {
  const begin = (page: Page) => page.coverage.startJSCoverage({ resetOnNavigation: false });
  await begin(first);
  first.context().on('page', (page) => void begin(page).catch(() => undefined));
  return async () => {
    for (const page of first.context().pages()) {
      const result = await page.coverage.stopJSCoverage().catch(() => []);
      writeFileSync(join(folder, 'browser', `${randomUUID()}.json`), JSON.stringify({ result }));
    }
  };
}

/** What a phone's browser lacks on a page that it has over plain HTTP from another machine. */
function asOverPlainHttp(): void {
  Reflect.deleteProperty(Crypto.prototype, 'randomUUID');
  Reflect.deleteProperty(Navigator.prototype, 'clipboard');
}

/** A browser test on the demo, begun on a phone. */
export const test = base.extend<Fixtures & Options>({
  demo: [true, { option: true }],
  pace: [10, { option: true }],
  isLetIn: [true, { option: true }],
  person: ['Mara Quist', { option: true }],
  stopsDatabase: [false, { option: true }],
  cluster: async ({ stopsDatabase }, run, info) => {
    const cluster = stopsDatabase ? await ownCluster(`browser-${info.parallelIndex}`) : undefined;
    await run(cluster);
    cluster?.stopNow();
  },
  server: async ({ demo, pace, cluster }, run, info) => {
    const name = `${info.file}_${info.title}`.replace(/.*\//, '').replace(/\W+/g, '_');
    const server = await startServer(name, { demo, pace, cluster });
    await run(server);
    await server.stop();
  },
  errors: async ({}, run) => {
    const errors: string[] = [];
    await run(errors);
    base.expect(unexpected(errors)).toEqual([]);
  },
  // The server is asked for first, so that it outlives the page.
  page: async ({ server, errors, isLetIn, person, page }, run) => {
    watchErrors(page, errors);
    if (isLetIn) await letBrowserIn(page.context(), server, person);
    await page.context().addInitScript(asOverPlainHttp);
    await page.setViewportSize(PHONE);
    const end = COVERAGE ? await mapPages(page, COVERAGE) : undefined;
    await run(page);
    await end?.();
    await page.close();
  },
});
