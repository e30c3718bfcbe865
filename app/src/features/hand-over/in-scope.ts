import type { HandOverScope } from '@ipsonomo/core/api';
import { interfacesOf, type Plan, type PlannedInterface } from '@ipsonomo/core/plan';

export const WHOLE: HandOverScope = { cabinets: [], subnets: [] };

/** The interfaces of a part of a job; an empty list means all of it. */
export const interfacesIn = (plan: Plan, scope: HandOverScope): readonly PlannedInterface[] =>
  interfacesOf(plan).filter(
    ({ device, at }) => has(scope.cabinets, device.cabinet) && has(scope.subnets, at.subnetId),
  );

const has = (wanted: readonly string[], one: string): boolean =>
  wanted.length === 0 || wanted.includes(one);

/** With it where it was not, without it where it was. */
export const toggled = (all: readonly string[], one: string): readonly string[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one];
