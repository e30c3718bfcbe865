import type { FormatId } from '@ipsonomo/core/api';
import { planOf } from '@ipsonomo/core/plan';
import {
  materialOf,
  type Material,
  type ProofRecord,
  type Sealed,
  type Tick,
} from '@ipsonomo/handover';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { SealedRow } from '../store/whole-job-store';
import { installationKey } from './installation-key';
import type { PackageOrder } from './protocol';

/**
 * The state of a job at this moment: its plan, what was seen of it, and what the wanted formats need beside. Refuses with
 * `package.wrong` where something is wrong in it, and nobody said that it leaves all the same, with `package.nothing` where
 * no device is there that was named.
 */
export async function materialFrom(store: Store, order: PackageOrder): Promise<Material> {
  const { jobId, wish, person, origin } = order;
  const wants = (...formats: readonly FormatId[]) =>
    formats.some((one) => wish.formats.includes(one));
  const [{ name }, { doc, revision }, { byInterface }] = await Promise.all([
    store.job(jobId),
    store.planState(jobId),
    store.evidence.latest(jobId),
  ]);
  const plan = planOf(doc);
  const material = materialOf({
    ...{ job: name, revision, at: Date.now(), plan, evidence: byInterface, person },
    ...{ scope: wish.scope, options: plan.settings.handOver ?? {} },
    linkTo: (id) => `${origin}/job/${jobId}/call/${encodeURIComponent(id)}`,
    ...(wants('plan') ? { papers: await store.papersOfPlan(jobId) } : {}),
    ...(wants('proof-json', 'proof-pdf') ? { record: await recordOf(store, order) } : {}),
    ...(wants('written-places') ? { ticks: await ticksOf(store, jobId) } : {}),
  });
  // A cabinet may be empty; who names a device wants that one.
  if (wish.scope.interfaces?.length && material.chosen.length === 0)
    throw Refusal.of('package.nothing', '');
  const wrong = material.snags.filter(({ severity }) => severity === 'wrong').length;
  if (wrong > 0 && !wish.despite) throw Refusal.of('package.wrong', '', { count: wrong });
  return material;
}

/** What was said of a value counts for that value alone. */
async function ticksOf(store: Store, jobId: string): Promise<ReadonlyMap<string, Tick>> {
  const said = await store.evidence.writtenTicks(jobId);
  return new Map(
    said
      .filter(({ is }) => is === 'yes')
      .map(({ interface: at, place, value, person, at: when }) => [
        `${at} ${place} ${value}`,
        { person, at: when },
      ]),
  );
}

async function recordOf(store: Store, { jobId, captures }: PackageOrder): Promise<ProofRecord> {
  const [rows, revisions] = await Promise.all([
    store.whole.sealed(jobId),
    store.whole.revisionLines(jobId),
  ]);
  return { evidence: rows.map(sealedOf), revisions, ...installationKey(captures) };
}

const sealedOf = ({ text, folded, chain }: SealedRow): Sealed =>
  text === null ? { folded: folded ?? 0, chain } : { text, chain };
