import { NAME_WORDS } from '@ipsonomo/language/kept';
import { readPlanFile, writePlanFile } from '@ipsonomo/core/formats';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { PlanChanger } from './change-plan';
import { papersOf, type Papers } from './papers';

/** The plan of a job as a file to take away, with what its papers hold or with their names only. */
export async function planFile(
  store: Store,
  papers: Papers,
  jobId: string,
  withPapers: boolean,
): Promise<{ readonly name: string; readonly text: string }> {
  const [{ name }, { doc, revision }] = await Promise.all([
    store.job(jobId),
    store.planState(jobId),
  ]);
  const held = withPapers ? { papers: await papers.forFile(jobId) } : {};
  return {
    name: NAME_WORDS.planFile({ job: name, revision }),
    text: writePlanFile({ name, doc, ...held }),
  };
}

/** A new job from a plan file; nothing of a file that has a fault is taken. */
export async function jobFromFile(
  changer: PlanChanger,
  papers: Papers,
  text: string,
  actor: Actor,
): Promise<string> {
  const read = readPlanFile(text);
  if (!read.ok) throw new Refusal(read.error);
  const held = papersOf(read.value.papers);
  const jobId = await changer.addJobWith(read.value, actor);
  await papers.takeFromFile(jobId, held);
  return jobId;
}
