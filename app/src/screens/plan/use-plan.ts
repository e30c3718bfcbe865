import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { planFromView, type JobView, type Plan } from '@ipsonomo/core';
import { jobQuery } from '../../data';

/** The job with its plan as core reasons about it. */
export function usePlan(job: string): {
  readonly view: JobView | undefined;
  readonly plan: Plan | undefined;
  readonly error: unknown;
} {
  const { data: view, error } = useQuery(jobQuery(job));
  const plan = useMemo(() => (view ? planFromView(view) : undefined), [view]);
  return { view, plan, error };
}
