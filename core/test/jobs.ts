import { randomUUID } from 'node:crypto';
import {
  docFromView,
  jobViewOf,
  type JobView,
  type PlanView,
  type ProgressView,
} from '@ipsonomo/core/api';
import { planOf, type Edit } from '@ipsonomo/core/plan';
import { SnagBook } from '@ipsonomo/core/snags';

// What tests ask of a job in one go, as the pages put it together.

/** A device with one interface, as somebody types it in. */
export interface NewDevice {
  readonly title: string;
  readonly name: string;
  readonly kindId: string;
  readonly way: string;
  readonly area?: string;
  readonly cabinet?: string;
  readonly position?: string;
  readonly subnetId: string;
  readonly address: string;
}

/** Edits that add devices, in their order. */
export const addingDevices = (devices: readonly NewDevice[]): readonly Edit[] =>
  devices.flatMap(({ subnetId, address, ...fields }): readonly Edit[] => {
    const id = randomUUID();
    const at = { id: randomUUID(), deviceId: id, subnetId, address };
    return [
      { op: 'add', type: 'device', thing: { id, ...fields } },
      { op: 'add', type: 'interface', thing: at },
    ];
  });

/** Edits that take a device out, with its interfaces. */
export function removingDevice({ things }: PlanView, deviceId: string): readonly Edit[] {
  const own = things.interface.filter((one) => one['deviceId'] === deviceId);
  const device = things.device.filter(({ id }) => id === deviceId);
  return [
    ...own.map((thing): Edit => ({ op: 'remove', type: 'interface', thing })),
    ...device.map((thing): Edit => ({ op: 'remove', type: 'device', thing })),
  ];
}

/** A job as a page shows it. */
export function viewOfJob(view: PlanView, progress: ProgressView): JobView {
  const plan = planOf(docFromView(view));
  return jobViewOf(view, plan, progress, new SnagBook().update(plan));
}
