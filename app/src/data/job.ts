import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { jobViewOf, type JobView, type ProgressView } from '@ipsonomo/core/api';
import { planOf, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { SnagBook, type Snag } from '@ipsonomo/core/snags';
import { watchOf, type Clash } from './clashes';
import { planQuery } from './plan-now';
import type { PlanNow } from './plan-state';
import { progressQuery } from './queries';

/** A job as the screens show it: the plan as core reasons about it, and what was seen. */
export interface Job {
  readonly now: PlanNow;
  readonly view: JobView;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  /** All of them, the accepted ones too. */
  readonly snags: readonly Snag[];
  /** Wrong snags that my changes and those of others made together. */
  readonly clashes: readonly Clash[];
}

/** One book a job: after an edit only what it touched is looked at again. */
const books = new Map<string, SnagBook>();

export function snagsNow(job: string, plan: Plan): readonly Snag[] {
  let book = books.get(job);
  if (!book) books.set(job, (book = new SnagBook()));
  return book.update(plan);
}

/** What was put together last, for the several parts of one page that ask for it. */
let last: { readonly now: PlanNow; readonly progress: ProgressView; readonly job: Job } | undefined;

function jobOf(now: PlanNow, progress: ProgressView): Job {
  if (last?.now === now && last.progress === progress) return last.job;
  const plan = planOf(now.doc);
  const snags = snagsNow(now.id, plan);
  const watch = watchOf(now.id);
  watch.look(snags);
  const view = jobViewOf(now, plan, progress, snags);
  const job = { now, plan, snags, doc: now.doc, view, clashes: watch.clashes(plan) };
  last = { now, progress, job };
  return job;
}

/** The job, undefined until the plan was read. What was seen comes a moment later. */
export function useJob(id: string): { readonly job: Job | undefined; readonly error: unknown } {
  const { data: now, error } = useQuery(planQuery(id));
  const { data: progress, error: unseen } = useQuery(progressQuery(id));
  const job = useMemo(() => (now && progress ? jobOf(now, progress) : undefined), [now, progress]);
  return { job, error: error ?? unseen };
}
