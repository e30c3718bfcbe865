import type { DeviceInfo, InterfaceView, JobView } from '@ipsonomo/core/api';
import {
  findKind,
  interfacesOf,
  type Device,
  type Interface,
  type Plan,
} from '@ipsonomo/core/plan';
import {
  lastsUntil,
  plannedTexts,
  proofOutcome,
  requiredChecks,
  type ProofOutcome,
} from '@ipsonomo/core/proof';

/** One interface as planned, as seen, and what its last check comes to. */
export interface Finding {
  readonly device: DeviceInfo;
  readonly at: InterfaceView;
  readonly planned: { readonly device: Device; readonly at: Interface };
  readonly outcome: ProofOutcome;
}

/** When what was found last of each counts no longer. */
export const staleTimesOf = (plan: Plan, view: JobView): readonly number[] =>
  view.devices.flatMap((device) => {
    const kind = findKind(plan, device.kindId);
    return device.interfaces.flatMap(({ check }) =>
      check === null
        ? []
        : requiredChecks(kind, device.way).map((one) => lastsUntil(one, check.at) + 1),
    );
  });

/** Every interface of a job, in the order of the plan. */
export function findingsOf(plan: Plan, view: JobView, now: number): readonly Finding[] {
  const seen = new Map(
    view.devices.flatMap((device) =>
      device.interfaces.map((at) => [at.id, { device, at }] as const),
    ),
  );
  return interfacesOf(plan).flatMap((planned) => {
    const one = seen.get(planned.at.id);
    if (!one) return [];
    const kind = findKind(plan, planned.device.kindId);
    const required = requiredChecks(kind, planned.device.way);
    const last = one.at.check ?? undefined;
    const outcome = proofOutcome(planned.at.id, required, last, {
      ...{ acceptances: plan.acceptances, planned: plannedTexts(plan, planned), now },
    });
    return [{ ...one, planned, outcome }];
  });
}

export const ofKind = (findings: readonly Finding[], ...kinds: readonly ProofOutcome['kind'][]) =>
  findings.filter(({ outcome }) => kinds.includes(outcome.kind));
