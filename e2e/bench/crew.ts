import { chromium, type Browser } from '@playwright/test';
import type { FieldView, PlanView } from '@ipsonomo/core/api';
import { Client } from 'pg';
import { bigJob, crowdIn } from '../crowd';
import { DatabaseLink } from '../database-link';
import { api, letBrowserIn, startServer, until, type TestServer } from '../harness';
import { CHROMIUM } from '../playwright.config';
import { percentile, residentMegabytes, type Figure } from './figures';

// A crew: many people on one server and on two with one database, a change until it is drawn at the other, a database
// that is out of reach while a site is given its addresses, and a shift that signs in at once.

/** Five minutes, and ten of a cut, for the figures. */
const SECONDS = Number(process.env['BENCH_SECONDS'] ?? 60);
const CUT = Number(process.env['BENCH_CUT'] ?? 60);
const pause = (wait: number) => new Promise((resolve) => setTimeout(resolve, wait));

const PEOPLE = 50;
const DEVICES = 5000;

const figure = (what: string, ours: string, wanted: string, isReached: boolean): Figure => ({
  ...{ what, ours, reference: '', wanted, isReached },
});
const millis = (value: number): string => `${value.toFixed(0)} ms`;

async function withTwo<T>(
  name: string,
  demo: boolean,
  act: (hall: TestServer, tower: TestServer) => Promise<T>,
): Promise<T> {
  const hall = await startServer(`bench_${name}`, { demo, called: 'Hall' });
  const { databaseUrl } = hall;
  const tower = await startServer(`bench_${name}_2`, { demo, databaseUrl, called: 'Tower' });
  try {
    return await act(hall, tower);
  } finally {
    await tower.stop();
    await hall.stop();
  }
}

const crowd = (): Promise<readonly Figure[]> =>
  withTwo('crew', false, async (hall, tower) => {
    const job = await bigJob(hall, DEVICES);
    const figures: Figure[] = [];
    for (const servers of [[hall], [hall, tower]] as const) {
      const before = servers.map((one) => residentMegabytes(one.pid()));
      const found = await crowdIn(servers, job, {
        ...{ people: PEOPLE, seconds: SECONDS, everyMillis: 5000 },
      });
      const more = servers.map((one, at) => residentMegabytes(one.pid()) - (before[at] ?? 0));
      const { sent, taken, clashes, failed, edits, revision, heard } = found;
      const p95 = percentile(edits, 0.95);
      const isAll = failed.length === 0 && heard.every((one) => one === revision);
      figures.push(
        figure(
          `${PEOPLE} people in ${DEVICES} devices on ${servers.length} server${servers.length > 1 ? 's' : ''}, ${SECONDS} s: an edit`,
          `p95 ${millis(p95)}; ${taken} of ${sent} taken, ${clashes} told their clash, ${failed.length} failed, everybody at the last: ${isAll ? 'yes' : 'no'}, ${more.map((one) => one.toFixed(0)).join(' and ')} MB more`,
          'p95 ≤ 100 ms, none failed, none lost',
          p95 <= 100 && isAll,
        ),
      );
    }
    return figures;
  });

const CHANGES = 40;

/** From the moment at which it is sent to one server, until a browser at the other has drawn it. */
async function drawn(browser: Browser): Promise<Figure> {
  return withTwo('drawn', true, async (hall, tower) => {
    const [job] = await api<{ id: string }[]>(hall, 'GET', '/jobs');
    const path = `/jobs/${job?.id ?? ''}`;
    const { things } = await api<PlanView>(hall, 'GET', `${path}/plan`);
    const device = things.device.find((one) => one['title'] === 'Drum filter drive 1');
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    await letBrowserIn(context, tower);
    const page = await context.newPage();
    await page.goto(`${tower.url}/job/${job?.id ?? ''}/plan`);
    await page.getByText('Drum filter drive 1').first().waitFor();
    const times: number[] = [];
    let from = 'Drum filter drive 1';
    for (let change = 0; change < CHANGES; change += 1) {
      const to = `Drum filter drive ${change} again`;
      const edits = [{ op: 'set', type: 'device', id: device?.['id'], field: 'title', from, to }];
      const seen = page.waitForFunction((text) => document.body.textContent?.includes(text), to, {
        polling: 'raf',
      });
      const begun = performance.now();
      await api(hall, 'POST', `${path}/edits`, { edits, why: 'renamed' });
      await seen;
      times.push(performance.now() - begun);
      from = to;
    }
    await context.close();
    const p95 = percentile(times, 0.95);
    return figure(
      'a change at one server until a browser at the other has drawn it, p95',
      `${millis(p95)} (median ${millis(percentile(times, 0.5))})`,
      '≤ 300 ms',
      p95 <= 300,
    );
  });
}

/** Each asks once while the database is out of reach; what they asked and were given is evidence afterwards. */
async function cutOff(): Promise<Figure> {
  const home = await startServer('bench_cut', { demo: false });
  const link = await DatabaseLink.open(home.databaseUrl);
  const laptop = await startServer('bench_cut_2', { demo: false, databaseUrl: link.url, pace: 5 });
  try {
    const job = await bigJob(home, 300);
    const { id } = await api<{ id: string }>(home, 'POST', `/jobs/${job}/rehearsals`, {
      wish: { kind: 'chosen', which: [] },
    });
    const path = `/jobs/${id}`;
    const power = (on: boolean) =>
      api(laptop, 'POST', `${path}/practice/cabinet`, { action: { kind: 'power-all', on } });
    await until('the rehearsal is known', () =>
      api(laptop, 'POST', `${path}/wire`, { kind: 'practice' }),
    );
    await bindAll(home, laptop, path, power);
    await api(laptop, 'POST', `${path}/wire/arm`, { minutes: 60 });
    await until('it answers', async () =>
      (await api<FieldView>(laptop, 'GET', `${path}/wire`)).voices.some(
        ({ state }) => state === 'ready',
      ),
    );
    // Once with the database there: so many ask, and are given theirs.
    await power(true);
    const asking = await settled(() => given(home, path, 0));
    await power(false);
    const before = await lastOf(home, path);
    link.cut();
    const begun = Date.now();
    await power(true);
    const isAway = async () =>
      (await api<{ databaseAwaySince: number | null }>(laptop, 'GET', '/servers'))
        .databaseAwaySince !== null;
    await until('it is out of reach', isAway);
    await pause(Math.max(0, begun + CUT * 1000 - Date.now()));
    const meanwhile = await given(home, path, before);
    link.mend();
    await until('all evidence', async () => (await given(home, path, before)) >= asking, 60).catch(
      () => undefined,
    );
    const all = await given(home, path, before);
    return figure(
      `a database out of reach for ${CUT} s while a site of 300 devices is switched on, of which ${asking} ask`,
      `${all} given, and kept as evidence, ${meanwhile} of it before it was back`,
      'all, none before',
      all === asking && asking > 0 && meanwhile === 0,
    );
  } finally {
    link.mend();
    await laptop.stop();
    await home.stop();
    link.close();
  }
}

/** Binds whoever asks to the interface that is planned for it: in a rehearsal its label says which. */
async function bindAll(
  home: TestServer,
  laptop: TestServer,
  path: string,
  power: (on: boolean) => Promise<unknown>,
): Promise<void> {
  await api(laptop, 'POST', `${path}/wire/listen`);
  const { devices } = await api<{ devices: readonly { id: string; label: string }[] }>(
    laptop,
    'GET',
    `${path}/practice/cabinet`,
  );
  const labels = new Map(devices.map(({ id, label }) => [id, label]));
  const { things } = await api<PlanView>(home, 'GET', `${path}/plan`);
  const ways = new Map(things.device.map((one) => [one['id'], one['way']]));
  const edits = things.interface.flatMap((one) => {
    const label = labels.get(String(one['id']));
    const isAsking = ['bootp', 'dhcp-mac'].includes(String(ways.get(String(one['deviceId']))));
    if (!isAsking || label === undefined || label === '' || one['mac']) return [];
    const to = label.toLowerCase().replaceAll('-', ':');
    return [{ op: 'set', type: 'interface', id: one['id'], field: 'mac', from: null, to }];
  });
  if (edits.length > 0)
    await api(home, 'POST', `${path}/edits`, { edits, why: 'bound at the desk' });
  await power(false);
}

/** Looked at in the database itself: two hundred pages at once are not what is measured here. */
async function answered<T>(
  home: TestServer,
  path: string,
  what: string,
  since: number,
): Promise<T> {
  const client = new Client({ connectionString: home.databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ found: T }>(
    `select ${what} as found from evidence
     where job_id = $1 and kind = 'answered' and at > to_timestamp($2::float8 / 1000)`,
    [path.split('/').at(-1), since],
  );
  await client.end();
  return rows[0]?.found as T;
}

/** So many were given their address after that. */
const given = (home: TestServer, path: string, since: number): Promise<number> =>
  answered(home, path, 'count(distinct interface_id)::int', since);
const lastOf = (home: TestServer, path: string): Promise<number> =>
  answered(home, path, '(extract(epoch from max(at)) * 1000)::float8', 0);

/** A number that has not changed for ten seconds. */
async function settled(count: () => Promise<number>): Promise<number> {
  for (let before = -1; ;) {
    const now = await count();
    if (now === before && now > 0) return now;
    before = now;
    await pause(10_000);
  }
}

const SHIFT = 100;

/** A hundred people whose passwords are weighed at once, and what somebody else waits meanwhile. */
async function signIn(): Promise<Figure> {
  const server = await startServer('bench_sign_in', { demo: false });
  try {
    const post = (path: string, body: object) =>
      fetch(`${server.url}/api${path}`, {
        ...{ method: 'POST', body: JSON.stringify(body) },
        headers: { 'content-type': 'application/json' },
      });
    const password = (at: number) => `A long word for person ${at}`;
    for (let at = 0; at < SHIFT; at += 1) {
      const { key } = await api<{ key: string }>(server, 'POST', '/keys', { role: 'assign' });
      await post('/door', { key, name: `Person ${at}`, password: password(at) });
    }
    const reads: number[] = [];
    let isOver = false;
    let failures = 0;
    const reading = (async () => {
      while (!isOver) {
        const begun = performance.now();
        await api(server, 'GET', '/jobs').catch(() => (failures += 1));
        reads.push(performance.now() - begun);
        await new Promise((resolve) => setTimeout(resolve, 10));
      }
    })();
    const begun = performance.now();
    const answers = await Promise.all(
      Array.from({ length: SHIFT }, (_, at) =>
        post('/door/sign-in', { name: `Person ${at}`, password: password(at) }),
      ),
    );
    const took = performance.now() - begun;
    isOver = true;
    await reading;
    const inside = answers.filter(({ status }) => status === 204).length;
    return figure(
      `${SHIFT} people sign in at once`,
      `${inside} in, in ${(took / 1000).toFixed(1)} s; reads of others p95 ${millis(percentile(reads, 0.95))}, ${failures} failed`,
      'all, and no read fails',
      inside === SHIFT && failures === 0,
    );
  } finally {
    await server.stop();
  }
}

export async function crewFigures(): Promise<readonly Figure[]> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    return [...(await crowd()), await drawn(browser), await cutOff(), await signIn()];
  } finally {
    await browser.close();
  }
}
