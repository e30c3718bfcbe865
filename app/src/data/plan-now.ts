import { queryOptions, type QueryClient } from '@tanstack/react-query';
import { acts, keys } from '@ipsonomo/contract';
import { docFromView, thingsOf, type EditedView, type PlanView } from '@ipsonomo/core/api';
import { applyEdits, type Edit } from '@ipsonomo/core/plan';
import { watchOf } from './clashes';
import { ask, pathOf, stepsAfter } from './http';
import { keepStep } from './kept-answers';
import type { PlanNow } from './plan-state';
import { withHeld } from './waiting';

export const planQuery = (id: string) =>
  queryOptions({
    queryKey: keys.plan(id),
    queryFn: async ({ client }) => {
      const known = () => client.getQueryData<PlanNow>(keys.plan(id));
      const read = await readPlan(id, known());
      // What was told meanwhile may be newer than what was read.
      const now = known();
      return withHeld(now && now.revision > read.revision ? now : read);
    },
    // Two plans are compared by their revision and not thing by thing.
    structuralSharing: false,
  });

async function readPlan(job: string, known: PlanNow | undefined): Promise<PlanNow> {
  if (known) {
    const query = { since: String(known.revision) };
    const since = await ask(acts.readEdits, { job }, { query });
    if (since.revision === known.revision && since.lastNamed === known.lastNamed) return known;
    watchOf(job).noteRead(since.revisions);
    const edits = since.revisions.flatMap((one) => one.edits);
    const next = planAfter(known, { revision: since.revision, edits });
    if (next) return { ...next, lastNamed: since.lastNamed };
  }
  const read = await ask(acts.readPlan, { job });
  const { things, ...head } = read;
  return afterSteps({ ...head, doc: docFromView({ things }) }, stepsAfter(read) as readonly Step[]);
}

interface Step {
  readonly revision: number;
  readonly edits: readonly Edit[];
}

/** With what was told of the plan after it was read whole, where that was an answer to an earlier page. */
function afterSteps(plan: PlanNow, steps: readonly Step[]): PlanNow {
  let now = plan;
  for (const { revision, edits } of steps) {
    const outcome = revision > now.revision ? applyEdits(now.doc, edits) : undefined;
    if (outcome?.ok) now = { ...now, revision, doc: outcome.value.doc };
  }
  return now;
}

/** The plan with edits that the server made; undefined where they do not follow on it. */
export function planAfter(known: PlanNow, { revision, edits }: EditedView): PlanNow | undefined {
  if (revision < known.revision) return undefined;
  const outcome = applyEdits(known.doc, edits);
  if (!outcome.ok) return undefined;
  const next = { ...known, revision, doc: outcome.value.doc };
  if (revision > known.revision)
    void keepStep(
      pathOf(acts.readPlan, { job: known.id }),
      { revision, edits } satisfies Step,
      () => JSON.stringify(viewOf(next)),
    );
  return next;
}

const viewOf = ({ doc, ...head }: PlanNow): PlanView => ({ ...head, things: thingsOf(doc) });

const planAfterNext = (known: PlanNow | undefined, edited: EditedView): PlanNow | undefined =>
  known && edited.revision === known.revision + 1 ? planAfter(known, edited) : undefined;

/** The plan of the page moves on at once by what the server made of a change. */
export function takeEdited(client: QueryClient, job: string, edited: EditedView): void {
  watchOf(job).noteMine(edited.revision, edited.edits);
  const known = client.getQueryData<PlanNow>(keys.plan(job));
  // Where it was told before this answer came, it is looked at once more, now that it is known to be mine.
  const isTold = known !== undefined && known.revision >= edited.revision;
  const next = isTold ? { ...known } : planAfterNext(known, edited);
  if (next) client.setQueryData<PlanNow>(keys.plan(job), next);
  else void client.invalidateQueries({ queryKey: keys.plan(job) });
  void client.invalidateQueries({ queryKey: keys.revisions(job) });
}

/** Somebody else was there first: what they did is read. */
export const planRefused = (client: QueryClient, job: string): Promise<void> =>
  client.invalidateQueries({ queryKey: keys.plan(job) });
