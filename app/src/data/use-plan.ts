import type { JobView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { useJob } from './job';

/** The job with its plan as core reasons about it. */
export function usePlan(id: string): {
  readonly view: JobView | undefined;
  readonly plan: Plan | undefined;
  readonly error: unknown;
} {
  const { job, error } = useJob(id);
  return { view: job?.view, plan: job?.plan, error };
}
