import type { JobView, PlanView, ProgressView } from '@ipsonomo/core/api';
import { addingDevices, viewOfJob, type NewDevice } from '../core/test/jobs';
import { api, type TestServer } from './harness';

/** A job as a page puts it together. */
export async function jobView(server: TestServer, jobId: string): Promise<JobView> {
  const plan = await api<PlanView>(server, 'GET', `/jobs/${jobId}/plan`);
  return viewOfJob(plan, await api<ProgressView>(server, 'GET', `/jobs/${jobId}/progress`));
}

/** Adds devices, each with one interface, and tells the ids of the interfaces. */
export async function addDevices(
  server: TestServer,
  jobId: string,
  devices: readonly NewDevice[],
): Promise<readonly string[]> {
  const edits = addingDevices(devices);
  await api(server, 'POST', `/jobs/${jobId}/edits`, { edits, why: 'added devices' });
  return edits.flatMap((one) =>
    one.op === 'add' && one.type === 'interface' ? [one.thing.id] : [],
  );
}
