import { readPlanFile, writePlanFile } from '@ipsonomo/core';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Person, PlanChanger } from './change-plan';

/** The plan of a job as a file to take away. */
export async function planFile(
  store: Store,
  jobId: string,
): Promise<{ readonly name: string; readonly text: string }> {
  const [{ name }, { doc, revision }] = await Promise.all([
    store.job(jobId),
    store.planState(jobId),
  ]);
  return { name: `${name} plan revision ${revision}.json`, text: writePlanFile({ name, doc }) };
}

/** A new job from a plan file; nothing of a file that has a fault is taken. */
export function jobFromFile(changer: PlanChanger, text: string, person: Person): Promise<string> {
  const read = readPlanFile(text);
  if (!read.ok) throw new Refusal(read.error);
  return changer.addJobWith(read.value, person);
}
