import { expect, test } from '@playwright/test';
import { percentile, residentMegabytes } from '../bench/figures';
import { bigJob, crowdIn } from '../crowd';
import { startServer, type TestServer } from '../harness';

// Many people in one job. A short form here; fifty in five thousand devices for five minutes with npm run soak.

const IS_LONG = process.env['IPSONOMO_SOAK'] !== undefined;

let server: TestServer;
test.beforeAll(async () => {
  server = await startServer('crowd', { demo: false });
});
test.afterAll(() => server?.stop());

const residentMb = (): number => residentMegabytes(server.pid());

const at = (times: readonly number[], share: number): string =>
  `${percentile(times, share).toFixed(0)} ms`;

test('many people change one plan: each edit is taken or told its clash, and every page hears of all', async () => {
  test.setTimeout(900_000);
  const jobId = await bigJob(server, IS_LONG ? 5000 : 400);
  const crowd = IS_LONG
    ? { people: 50, seconds: 300, everyMillis: 5000 }
    : { people: 8, seconds: 4, everyMillis: 800 };
  const before = residentMb();
  const { sent, taken, clashes, failed, edits, answers, asked, revision, heard } = await crowdIn(
    [server],
    jobId,
    crowd,
  );
  console.log(
    `${crowd.people} people, ${sent} edits, ${taken} taken, ${clashes} clashes; p95 ${at(edits, 0.95)}, p99 ${at(edits, 0.99)}; ` +
      `another answer p99 ${at(answers, 0.99)}; ${asked} questions; ${(residentMb() - before).toFixed(0)} MB more`,
  );
  expect(failed).toEqual([]);
  expect(taken + clashes).toBe(sent);
  expect(revision).toBe(1 + taken);
  expect(new Set(heard)).toEqual(new Set([revision]));
});
