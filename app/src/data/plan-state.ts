import type { PlanDoc } from '@ipsonomo/core/plan';

/** The plan as this page has it: read whole once, then kept in step by the edits since. */
export interface PlanNow {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly lastNamed: number;
  readonly doc: PlanDoc;
}
