import type { DeviceInfo, InterfaceView, JobView } from '@ipsonomo/core/api';
import { findKind, isKeyed, type Kind, type Plan } from '@ipsonomo/core/plan';

/** An interface that waits for a sticker. */
export interface Waiting {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly kind: Kind | undefined;
}

/** Every interface without a MAC whose way needs one, in the order of the plan. */
export const waitingFor = (view: JobView, plan: Plan): readonly Waiting[] =>
  view.devices.flatMap((device) =>
    isKeyed(device.way)
      ? []
      : device.interfaces
          .filter(({ mac }) => mac === null)
          .map((at) => ({ device, at, kind: findKind(plan, device.kindId) })),
  );

/** The kinds of what waits, each with how many do; the most first. */
export function kindsWaiting(waiting: readonly Waiting[]) {
  const counts = new Map<string, { readonly title: string; count: number }>();
  for (const { device, kind } of waiting) {
    const known = counts.get(device.kindId);
    if (known) known.count += 1;
    else counts.set(device.kindId, { title: kind?.name ?? device.kindId, count: 1 });
  }
  return [...counts]
    .map(([kindId, { title, count }]) => ({ kindId, title, count }))
    .sort((a, b) => b.count - a.count);
}
