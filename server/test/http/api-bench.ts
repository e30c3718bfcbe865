import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import type { JobView } from '@ipsonomo/core';
import { REAL_TIME } from '../../src/common/time';
import { compose, type Running } from '../../src/compose';
import { seedDemo } from '../../src/demo';
import type { Store } from '../../src/store/store';
import { Scratch } from '../scratch';

export type Method = 'get' | 'post' | 'patch' | 'delete';

/** The server without a port, on the real database, with the practice site in its own thread. */
export class ApiBench {
  private constructor(
    private readonly scratch: Scratch,
    private readonly running: Running,
    readonly logged: readonly string[],
    /** The demo job. */
    readonly job: JobView,
  ) {}

  static async open(name: string): Promise<ApiBench> {
    const scratch = await Scratch.open(name);
    await seedDemo(scratch.store);
    const logged: string[] = [];
    const running = await compose({
      store: scratch.store,
      captures: mkdtempSync(join(tmpdir(), 'ipsonomo-api-')),
      web: undefined,
      log: (line) => logged.push(line),
      time: REAL_TIME,
      pages: { host: '127.0.0.1', port: 0 },
    });
    const [first] = await scratch.store.jobs();
    const answer = await request(running.app).get(`/api/jobs/${first?.id}`).expect(200);
    return new ApiBench(scratch, running, logged, answer.body as JobView);
  }

  /** The database behind it. */
  get store(): Store {
    return this.scratch.store;
  }

  readonly call = (method: Method, path: string, person = 'Mara Quist') =>
    request(this.running.app)[method](`/api${path}`).set('x-person', encodeURIComponent(person));

  /** A job of its own, so that the demo's revision stays. */
  async jobOf(name: string): Promise<{ readonly path: string; readonly subnetId: string }> {
    const { id } = (await this.call('post', '/jobs').send({ name })).body as { id: string };
    const path = `/jobs/${id}`;
    const wanted = subnet({ network: '10.9.0.0/24', gateway: '10.9.0.1', vlan: 9 });
    const added = await this.call('post', `${path}/subnets`).send(wanted).expect(201);
    return { path, subnetId: (added.body as { id: string }).id };
  }

  async close(): Promise<void> {
    await this.running.close();
    await this.scratch.close();
  }
}

export const device = (fields: object = {}) => ({
  ...{ title: 'Valve block', name: 'vb-1', kindId: 'tarnwick-valves-16', way: 'bootp' },
  ...{ area: '', cabinet: '', position: '', address: '172.22.40.110' },
  ...fields,
});

export const subnet = (fields: object = {}) => ({
  ...{ name: 'Laboratory', network: '172.22.42.0/24', gateway: null, vlan: null, purpose: '' },
  ...fields,
});
