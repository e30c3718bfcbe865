import { test } from '@playwright/test';
import { ownCluster, startServer, type Cluster, type TestServer } from '../harness';
import { Job } from './job';
import { Wire } from './namespaces';

/** What the tests of one file share: a wire, a server on it, and a job that it listens for. */
export interface OnWire {
  readonly wire: Wire;
  readonly server: TestServer;
  readonly job: Job;
  /** The PostgreSQL of this file's own, where it may be stopped. */
  readonly cluster: Cluster | undefined;
}

/**
 * Sets the tests of a file up in a wire of their own, one after the other.
 * @param name at most four letters: namespaces are named after it
 * @returns filled in before the first test
 */
export function onWire(name: string, { stopsDatabase = false } = {}): OnWire {
  const shared = {} as { -readonly [K in keyof OnWire]: OnWire[K] };
  test.describe.configure({ mode: 'serial' });
  test.beforeAll(async () => {
    shared.wire = new Wire(name);
    const { namespace } = shared.wire.laptop;
    shared.cluster = stopsDatabase ? await ownCluster(`wire-${name}`) : undefined;
    const { cluster } = shared;
    shared.server = await startServer(`wire_${name}`, { demo: false, namespace, cluster });
    shared.job = await Job.begin(shared.server, 'Bench');
    await shared.job.listenOn('mach0');
  });
  test.afterAll(async () => {
    await shared.server?.stop();
    shared.wire?.takeDown();
    shared.cluster?.stopNow();
  });
  return shared;
}
