import { mkdtempSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { AddressInfo } from 'node:net';
import request from 'supertest';
import type { JobView, PlanView, ProgressView } from '@ipsonomo/core/api';
import { addingDevices, viewOfJob, type NewDevice } from '../../../core/test/jobs';
import { hastenedTime, REAL_TIME } from '../../../threads/src/time';
import { compose, type Running } from '../../src/compose';
import { seedDemo } from '../../src/demo';
import { listen } from '../../src/opening';
import type { Store } from '../../src/store/store';
import { Scratch } from '../scratch';

export type Method = 'get' | 'post' | 'patch' | 'delete';

/** The server without a port, asked through a socket as the machine's own person, on the real database, with the practice site in its own thread. */
export class ApiBench {
  private constructor(
    private readonly scratch: Scratch,
    readonly running: Running,
    private readonly server: Server,
    private readonly url: string,
    /** The same over TCP, where a key is needed. */
    readonly web: Server,
    readonly logged: readonly string[],
    /** The demo job. */
    readonly job: JobView,
    /** Where captures, and what is on its way out, lie. */
    readonly captures: string,
  ) {}

  /** @param pace how many times as fast its practice site lives */
  static async open(name: string, pace = 1): Promise<ApiBench> {
    const scratch = await Scratch.open(name);
    await seedDemo(scratch.store);
    return ApiBench.on(scratch, pace);
  }

  /** Another server that works with the same database. */
  static beside({ scratch }: ApiBench, pace = 1): Promise<ApiBench> {
    return ApiBench.on(Scratch.beside(scratch), pace);
  }

  private static async on(scratch: Scratch, pace: number): Promise<ApiBench> {
    const logged: string[] = [];
    const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-api-'));
    const running = await compose({
      store: scratch.store,
      own: { id: scratch.server, name: 'Hall 1' },
      database: scratch.database,
      captures: folder,
      web: undefined,
      log: (line) => logged.push(line),
      time: pace === 1 ? REAL_TIME : hastenedTime(pace, Date.now()),
      build: 'test',
      pages: { host: '127.0.0.1', port: 0 },
      openAt: (key) => [`http://127.0.0.1/#${key}`],
    });
    const server = createServer(running.app);
    const socket = join(folder, 'sock');
    await new Promise<void>((resolve) => listen(server, socket, resolve));
    const web = createServer(running.app);
    await new Promise<void>((resolve) => listen(web, { host: '127.0.0.1', port: 0 }, resolve));
    const url = `http+unix://${encodeURIComponent(socket)}`;
    const [first] = await scratch.store.jobs();
    const read = (path: string) => request(url).get(`/api${path}`).expect(200);
    const job = await viewAt(read, `/jobs/${first?.id}`);
    return new ApiBench(scratch, running, server, url, web, logged, job, folder);
  }

  /** Whatever no server may do. */
  async sql(text: string): Promise<void> {
    await this.scratch.knex.raw(text);
  }

  /** The database behind it. */
  get store(): Store {
    return this.scratch.store;
  }

  readonly call = (method: Method, path: string, person = 'Mara Quist') =>
    request(this.url)[method](`/api${path}`).set('x-person', encodeURIComponent(person));

  /** A job as a page puts it together. @param path `/jobs/…` */
  view = (path: string): Promise<JobView> => viewAt((of) => this.call('get', of).expect(200), path);

  /** Adds devices to a job. @param path `/jobs/…` */
  async add(path: string, ...devices: readonly NewDevice[]): Promise<void> {
    const edits = addingDevices(devices);
    await this.call('post', `${path}/edits`).send({ edits, why: '' }).expect(200);
  }

  /** Where a browser finds it. */
  get webUrl(): string {
    return `http://127.0.0.1:${(this.web.address() as AddressInfo).port}`;
  }

  /** The cookie of a browser that has just come in. */
  async cookie(): Promise<string> {
    const { key } = (await this.call('post', '/keys').expect(201)).body as { key: string };
    const answer = await request(this.webUrl).post('/api/door').send({ key }).expect(204);
    return String(answer.headers['set-cookie']).split(';')[0] ?? '';
  }

  /** A job of its own, so that the demo's revision stays. */
  async jobOf(name: string): Promise<{ readonly path: string; readonly subnetId: string }> {
    const made = await this.call('post', '/jobs').send({ name }).expect(201);
    const { id } = made.body as { id: string };
    const path = `/jobs/${id}`;
    const wanted = subnet({ network: '10.9.0.0/24', gateway: '10.9.0.1', vlan: 9 });
    const added = await this.call('post', `${path}/subnets`).send(wanted).expect(201);
    return { path, subnetId: (added.body as { id: string }).id };
  }

  async close(): Promise<void> {
    this.server.close();
    this.web.closeAllConnections();
    this.web.close();
    await this.running.close();
    await this.scratch.close();
  }
}

async function viewAt(read: (path: string) => request.Test, path: string): Promise<JobView> {
  const plan = (await read(`${path}/plan`)).body as PlanView;
  return viewOfJob(plan, (await read(`${path}/progress`)).body as ProgressView);
}

/** A valve block. */
export const device = (
  fields: Partial<NewDevice> & Pick<NewDevice, 'subnetId' | 'address'>,
): NewDevice => ({
  ...{ title: 'Valve block', name: 'vb-1', kindId: 'tarnwick-valves-16', way: 'bootp' },
  ...fields,
});

export const subnet = (fields: object = {}) => ({
  ...{ name: 'Laboratory', network: '172.22.42.0/24', gateway: null, vlan: null, purpose: '' },
  ...fields,
});

/** For supertest: an answer as the bytes it is. */
export const asBytes = (
  response: NodeJS.ReadableStream,
  done: (error: null, body: Buffer) => void,
) => {
  const pieces: Buffer[] = [];
  response.on('data', (piece: Buffer) => pieces.push(piece));
  response.on('end', () => done(null, Buffer.concat(pieces)));
};
