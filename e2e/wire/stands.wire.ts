import { spawnSync } from 'node:child_process';
import { request, type ClientRequest } from 'node:http';
import { expect, test } from '@playwright/test';
import ExcelJS from 'exceljs';
import type { EvidenceView, ListView } from '@ipsonomo/core/api';
import { cases } from '../../core/test/cases';
import { mostMegabytesMore, residentMegabytes } from '../bench/figures';
import { api, ownCluster, startServer, until, type Cluster, type TestServer } from '../harness';
import { addDevices, jobView } from '../jobs';
import { Job } from './job';

// It stands: whoever pulls the plug, and however many listen. A short form here, the long one with npm run soak.

let cluster: Cluster;
let server: TestServer;
test.beforeAll(async () => {
  cluster = await ownCluster('stands');
  // The practice site lives ten times as fast: between two kills a device is heard, bound and answered.
  server = await startServer('stands', { demo: true, cluster, pace: 10 });
});
test.afterAll(async () => {
  await server?.stop();
  cluster?.stopNow();
});

const residentMb = (): number => residentMegabytes(server.pid());

const median = (times: readonly number[], share = 0.5): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)] ?? 0;

/** Opens a stream of events that is read, or that nobody reads. */
function stream(isRead: boolean): ClientRequest {
  const { socketPath } = server;
  const asked = request({ socketPath, agent: false, path: '/api/events' }, (answer) => {
    if (isRead) answer.resume();
    else answer.pause();
    answer.on('error', () => undefined);
  });
  asked.on('error', () => undefined);
  asked.end();
  return asked;
}

test('many streams, a fifth of them never read: the server stays small, and answers', async () => {
  const job = await growing('Told');
  const count = Math.min(1000, cases(100));
  const before = residentMb();
  const streams = Array.from({ length: count }, (_, i) => stream(i % 5 !== 0));
  const times: number[] = [];
  for (let i = 0; i < 100; i += 1) {
    const begun = performance.now();
    await api(server, 'GET', `${job.path}/plan`);
    times.push(performance.now() - begun);
    // Something for all of them to be told of.
    await job.add();
  }
  const more = residentMb() - before;
  console.log(
    `${count} streams: ${more.toFixed(0)} MB more, an answer in ${median(times).toFixed(0)} ms, p95 ${median(times, 0.95).toFixed(0)} ms`,
  );
  expect(more).toBeLessThan(150);
  for (const one of streams) one.destroy();
});

/** A workbook whose one sheet is far more than it is as a file. */
async function workbook(rows: number, columns: number): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Devices');
  const row = Array.from({ length: columns }, (_, i) => `cell ${i}`);
  for (let i = 0; i < rows; i += 1) sheet.addRow(row);
  return Buffer.from(await book.xlsx.writeBuffer());
}

const isRefusal = (error: unknown) => /: (422|429|503) /.test((error as Error).message);

test('a dozen files of any kind at once: each is read or refused, and the server stays small', async () => {
  const { path } = await growing('Files');
  const list = await workbook(cases(60), 150);
  const commas = Buffer.from('device,ip\n'.padEnd(cases(100_000), 'Pump,10.9.0.1\n'));
  const eds = Buffer.from('[File]\n[Params]\n'.padEnd(cases(100_000), 'Param1 = 0,,,0x0000;\n'));
  const xml = Buffer.from('<a>'.padEnd(cases(100_000), '<b c="d"/>'));
  const describe = (name: string, file: Buffer) => async () => {
    await api(server, 'POST', `${path}/descriptions?name=${name}`, file);
  };
  const read = (name: string, file: Buffer) => async () => {
    const { id } = await api<{ id: string }>(server, 'POST', `${path}/lists?name=${name}`, file);
    const isDone = async () => {
      const { state } = await api<ListView>(server, 'GET', `${path}/lists/${id}`);
      return state === 'ready' || state === 'failed';
    };
    while (!(await isDone())) await new Promise((resolve) => setTimeout(resolve, 100));
  };
  const book = read('list.xlsx', list);
  const all = [read('list.csv', commas), describe('a.eds', eds), describe('a.xml', xml), book];
  for (const [what, twelve] of [
    ['workbooks', Array.from({ length: 12 }, () => book)],
    ['files of four kinds', [...all, ...all, ...all]],
  ] as const) {
    const ends: unknown[] = [];
    const more = await mostMegabytesMore(server.pid(), async () => {
      ends.push(...(await Promise.all(twelve.map((one) => one().catch((error) => error)))));
    });
    console.log(`twelve ${what} at once: ${more.toFixed(0)} MB more at most`);
    expect(ends.filter((end) => end !== undefined && !isRefusal(end))).toEqual([]);
    expect(more).toBeLessThan(800);
  }
});

/** A job with room for many devices, and a way to add them one after the other. */
async function growing(name: string) {
  const { id } = await api<{ id: string }>(server, 'POST', '/jobs', { name });
  const path = `/jobs/${id}`;
  const { id: subnetId } = await api<{ id: string }>(server, 'POST', `${path}/subnets`, {
    ...{ name: 'Hall', network: '10.9.0.0/16', gateway: null, vlan: null, purpose: '' },
  });
  let count = 0;
  const add = async (): Promise<string> => {
    const address = `10.9.${1 + Math.floor(count / 200)}.${1 + (count % 200)}`;
    const title = `d-${count}`;
    count += 1;
    const place = { area: '', cabinet: '', position: '' };
    const device = { title, name: title, kindId: 'belloch-drive-d4', way: 'dhcp-mac', ...place };
    await addDevices(server, id, [{ ...device, subnetId, address }]);
    return title;
  };
  return { id, path, add };
}

/** What a person was shown of the devices on the wire: evidence by its id. */
interface Round {
  readonly jobId: string;
  readonly shown: ReadonlyMap<string, string>;
  readonly bound: readonly string[];
  /** Ends once the act under way is over. */
  end(): Promise<void>;
}

/** Somebody who goes round the practice site: listens, binds whatever asks, answers it, and looks at what was seen. */
async function roundGoing(): Promise<Round> {
  const job = await Job.begin(server, 'Round');
  const free: string[] = [];
  for (let i = 0; i < 12; i += 1)
    free.push(await job.plan(`r-${i}`, 'belloch-drive-d4', 'dhcp-mac', `10.77.0.${20 + i}`));
  const shown = new Map<string, string>();
  const bound = new Map<string, string>();
  let isOver = false;
  const listen = async () => {
    await api(server, 'POST', job.wire(), { kind: 'practice', evenSo: true });
    await api(server, 'POST', job.wire('/arm'), { minutes: 10 });
  };
  const goOn = async () => {
    const asks = (await job.heard()).find(({ mac }) => !bound.has(mac));
    const at = free[0];
    if (asks && at !== undefined) {
      await job.bind(at, asks.mac);
      bound.set(asks.mac, at);
      free.shift();
    }
    for (const one of bound.values())
      for (const { id, kind } of await job.evidence(one)) shown.set(id, kind);
  };
  const going = (async () => {
    let isListening = false;
    while (!isOver)
      try {
        if (!isListening) await listen();
        isListening = true;
        await goOn();
        await new Promise((resolve) => setTimeout(resolve, 20));
      } catch {
        // Killed in the middle: whoever stands there begins again.
        isListening = false;
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
  })();
  return {
    jobId: job.id,
    shown,
    get bound() {
      return [...bound.values()];
    },
    async end() {
      isOver = true;
      await going;
    },
  };
}

test('killed at random moments, somebody editing and a round going on: all that was acknowledged is there, the chain whole', async () => {
  test.setTimeout(400_000 * cases(1));
  const { id, add } = await growing('Killed');
  const acknowledged: string[] = [];
  const round = await roundGoing();
  let isOver = false;
  const editing = (async () => {
    while (!isOver) {
      const added = await add().catch(() => undefined);
      if (added !== undefined) acknowledged.push(added);
      else await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  const restarts: number[] = [];
  const kills = cases(4);
  for (let kill = 0; kill < kills; kill += 1) {
    await new Promise((resolve) => setTimeout(resolve, 100 + ((kill * 379) % 900)));
    await server.kill();
    // Every fourth time the database falls as well.
    if (kill % 4 === 3) {
      cluster.stopNow();
      cluster.start();
    }
    const begun = performance.now();
    await server.restart();
    restarts.push(performance.now() - begun);
  }
  await until('something more is acknowledged', async () => acknowledged.length > kills);
  // On a busy machine there was no time for it between two kills.
  const isAsked = async () => [...round.shown.values()].includes('asked');
  await until('a device that is bound has asked', isAsked);
  isOver = true;
  await editing;
  await round.end();
  const view = await jobView(server, id);
  const there = new Set(view.devices.map(({ name }) => name));
  expect(acknowledged.filter((name) => !there.has(name))).toEqual([]);
  const kept = new Set<string>();
  for (const at of round.bound)
    for (const { id } of await api<EvidenceView[]>(
      server,
      'GET',
      `/jobs/${round.jobId}/interfaces/${at}/evidence`,
    ))
      kept.add(id);
  expect([...round.shown].filter(([id]) => !kept.has(id))).toEqual([]);
  console.log(
    `${kills} kills, ${acknowledged.length} changes and ${round.shown.size} pieces of evidence acknowledged, started again in ${median(restarts).toFixed(0)} ms`,
  );
  const audit = spawnSync(process.execPath, ['server/dist/ipsonomo.js', 'audit'], {
    cwd: `${__dirname}/../..`,
    env: { ...process.env, DATABASE_URL: server.databaseUrl },
    encoding: 'utf8',
  });
  expect([audit.status, audit.stderr]).toEqual([0, 'All evidence is as it was written.\n']);
});
