import { Client } from 'pg';
import type { JobSummary, PlanView } from '@ipsonomo/core/api';
import { bigJob, crowdIn } from '../crowd';
import { api, download, startServer, until, type TestServer } from '../harness';
import { jobView } from '../jobs';
import { median, percentile, residentMegabytes, type Figure } from './figures';

// What a large plant asks of a server: many jobs, many people, much evidence.

async function timed(runs: number, work: (run: number) => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const begun = performance.now();
    await work(run);
    times.push(performance.now() - begun);
  }
  return median(times);
}

const figure = (what: string, millis: number, most: number): Figure => ({
  ...{ what, ours: `${millis.toFixed(0)} ms`, reference: '', wanted: `≤ ${most} ms` },
  isReached: millis <= most,
});

const JOBS = 200;

async function jobsList(): Promise<readonly Figure[]> {
  const server = await startServer('bench_jobs', { demo: false });
  try {
    for (let job = 0; job < JOBS; job += 1) await bigJob(server, 500);
    const first = await timed(1, () => api(server, 'GET', '/jobs'));
    const begun = performance.now();
    const isCounted = async () =>
      (await api<JobSummary[]>(server, 'GET', '/jobs')).every(({ counts }) => counts !== null);
    await until('all jobs are counted', isCounted, 300);
    const counted = performance.now() - begun;
    const warm = await timed(15, () => api(server, 'GET', '/jobs'));
    await server.kill();
    await server.restart();
    const cold = await timed(1, () => api(server, 'GET', '/jobs'));
    return [
      figure(
        `list of ${JOBS} jobs of 500, after a start (the first time ever ${(first / 1000).toFixed(1)} s, with all counts ${(counted / 1000).toFixed(1)} s later)`,
        cold,
        150,
      ),
      figure('the same again', warm, 30),
    ];
  } finally {
    await server.stop();
  }
}

async function crowd(): Promise<readonly Figure[]> {
  const server = await startServer('bench_crowd', { demo: false });
  try {
    const jobId = await bigJob(server, 5000);
    const before = residentMegabytes(server.pid());
    const { sent, taken, clashes, failed, edits, answers } = await crowdIn([server], jobId, {
      ...{ people: 50, seconds: 60, everyMillis: 5000 },
    });
    const more = residentMegabytes(server.pid()) - before;
    const all = `50 people in 5,000 devices for a minute: ${taken} of ${sent} edits taken, ${clashes} told their clash, ${failed.length} failed, ${more.toFixed(0)} MB more`;
    return [
      figure(`${all}; p95`, percentile(edits, 0.95), 100),
      figure('its p99', percentile(edits, 0.99), 250),
      figure(
        'an answer that needs nothing meanwhile, p99 (how long the loop stands)',
        percentile(answers, 0.99),
        50,
      ),
    ];
  } finally {
    await server.stop();
  }
}

/** One edit after the other while somebody listens on the practice site's wire, told to the wire before it is answered. */
async function whileListening(server: TestServer, jobId: string): Promise<number> {
  const { things } = await api<PlanView>(server, 'GET', `/jobs/${jobId}/plan`);
  const devices = things.device ?? [];
  return timed(25, (run) => {
    const device = devices[(run * 37) % devices.length];
    const edit = { op: 'set', type: 'device', id: device?.id, field: 'area' };
    const edits = [{ ...edit, from: device?.['area'] ?? '', to: `Hall ${run}` }];
    return api(server, 'POST', `/jobs/${jobId}/edits`, { edits, why: 'moved' });
  });
}

const GO = 1000;

/** Rows as the server would write them, many at once: devices that were asked again and again. */
async function addEvidence(server: TestServer, jobId: string, count: number): Promise<void> {
  const { devices } = await jobView(server, jobId);
  const ids = devices.flatMap((one) => one.interfaces.map((at) => at.id));
  const client = new Client({ connectionString: server.databaseUrl });
  await client.connect();
  // In many transactions, as it comes: in one alone PostgreSQL would keep every state of the table of the latest.
  for (let first = 0; first < count; first += GO)
    await client.query(
      `insert into evidence (job_id, interface_id, kind, at, mac, address, source, person, facts)
       select $1, ($2::text[])[1 + n % $3], (array['asked', 'has-address', 'found-as-planned'])[1 + (n / $3) % 3],
         now() - make_interval(secs => $4 - n), '02:00:5e:00:53:01', '10.20.0.9', 'bench', 'bench',
         '{"message": "BootP request"}'
       from generate_series($5::int, $6::int - 1) as n`,
      [jobId, ids, ids.length, count, first, Math.min(first + GO, count)],
    );
  // As the database does by itself in the weeks that so much takes to come.
  await client.query('vacuum analyze evidence, latest_evidence');
  await client.query('checkpoint');
  await client.end();
}

/** The figure is for a million; they take minutes to be written. */
const MUCH = Number(process.env['BENCH_EVIDENCE'] ?? 200_000);

/** A server that was started again has no wire yet. */
async function listens(server: TestServer, jobId: string): Promise<void> {
  await api(server, 'POST', `/jobs/${jobId}/wire`, { kind: 'practice', evenSo: true });
  await api(server, 'POST', `/jobs/${jobId}/wire/listen`);
}

async function muchEvidence(): Promise<readonly Figure[]> {
  const server = await startServer('bench_evidence', { demo: true });
  try {
    const jobId = await bigJob(server, 5000);
    await listens(server, jobId);
    const without = await whileListening(server, jobId);
    const pages = () => timed(9, () => api(server, 'GET', `/jobs/${jobId}/progress`));
    /** How long a start takes, and what was seen for the first time after it. */
    const again = async () => {
      await server.kill();
      const begun = performance.now();
      await server.restart();
      const start = performance.now() - begun;
      const first = await timed(1, () => api(server, 'GET', `/jobs/${jobId}/progress`));
      return { start, first };
    };
    await addEvidence(server, jobId, 15_000);
    const few = await pages();
    const fewAgain = await again();
    await addEvidence(server, jobId, MUCH);
    await pages();
    const many = await pages();
    await listens(server, jobId);
    const edit = await whileListening(server, jobId);
    const { start, first } = await again();
    const figures: readonly Figure[] = [
      figure('an edit while somebody listens, 5,000 devices', without, 30),
      figure(`the same with ${MUCH.toLocaleString('en')} pieces of evidence`, edit, 30),
      {
        what: `what was seen of 5,000 devices, with ${MUCH.toLocaleString('en')} pieces of evidence`,
        ours: `${many.toFixed(0)} ms`,
        reference: `${few.toFixed(0)} ms with 15,000`,
        wanted: '≤ 1.2 times',
        isReached: many <= few * 1.2,
      },
      figure('start with it', start, 3000),
      {
        what: 'what was seen, for the first time after it',
        ours: `${first.toFixed(0)} ms`,
        reference: `${fewAgain.first.toFixed(0)} ms with 15,000`,
        wanted: '≤ 1.2 times',
        isReached: first <= fewAgain.first * 1.2,
      },
    ];
    return figures;
  } finally {
    await server.stop();
  }
}

/** How long others wait at most for an answer while a large plan, and what was seen of it, is read for the first time. */
async function firstReading(devices: number): Promise<Figure> {
  const server = await startServer('bench_first', { demo: false });
  try {
    const jobId = await bigJob(server, devices);
    await addEvidence(server, jobId, 3 * devices);
    const longest: number[] = [];
    for (let run = 0; run < 3; run += 1) {
      await server.kill();
      await server.restart();
      let isRead = false;
      const reading = Promise.all(
        ['plan', 'progress'].map((what) => download(server, `/jobs/${jobId}/${what}`)),
      ).finally(() => (isRead = true));
      const waits = [0];
      while (!isRead) waits.push(await timed(1, () => download(server, '/health')));
      await reading;
      longest.push(Math.max(...waits));
    }
    const what = `longest answer to others while a plan of ${devices.toLocaleString('en')} is read for the first time`;
    return figure(what, median(longest), 50);
  } finally {
    await server.stop();
  }
}

export async function scaleFigures(): Promise<readonly Figure[]> {
  return [
    ...(await jobsList()),
    ...(await crowd()),
    ...(await muchEvidence()),
    await firstReading(5000),
    await firstReading(20_000),
  ];
}
