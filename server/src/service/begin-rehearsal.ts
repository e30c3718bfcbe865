import { NAME_WORDS, REVISION_WORDS } from '@ipsonomo/language/kept';
import { randomInt } from 'node:crypto';
import type { NewRehearsal } from '@ipsonomo/core/api';
import { planOf } from '@ipsonomo/core/plan';
import { siteOfPlan, withMistakes } from '@ipsonomo/practice';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { PlanChanger } from './change-plan';
import { papersOf, type Papers } from './papers';

const MOST_SEED = 2 ** 31 - 1;

/** What a job is made with. */
interface Makers {
  readonly store: Store;
  readonly changer: PlanChanger;
  readonly papers: Papers;
}

/** Begins a rehearsal: a job of its own with a copy of the plan. @returns its id */
export async function rehearse(
  { store, changer, papers }: Makers,
  ofJob: string,
  { wish, seed = randomInt(MOST_SEED) }: NewRehearsal,
  actor: Actor,
): Promise<string> {
  const [job, { doc, revision }] = await Promise.all([store.job(ofJob), store.planState(ofJob)]);
  const plan = planOf(doc);
  const planned = siteOfPlan(plan, seed);
  const { mistakes } = withMistakes(plan, planned, wish, seed);
  const name = NAME_WORDS.rehearsalOf({ job: job.name });
  const why = REVISION_WORDS.copiedFrom({ job: job.name, revision });
  const jobId = await changer.addJobWith({ name, doc }, actor, why);
  await papers.takeFromFile(jobId, papersOf(await papers.forFile(ofJob)));
  await store.rehearsals.add({
    ...{ jobId, seed, wish, mistakes, unrehearsed: planned.unrehearsed },
    of: { id: ofJob, name: job.name, revision },
  });
  return jobId;
}
