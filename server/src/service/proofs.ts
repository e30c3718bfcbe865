import type { ProofDetailView, ProofView, ProofWish } from '@ipsonomo/core/api';
import { planOf, type EvidenceKind } from '@ipsonomo/core/plan';
import { interfacesIn, scopeTitle, type ProofState } from '@ipsonomo/core/proof';
import type { ProofRow } from '../store/models';
import type { ProofCounts, ProofHead } from '../store/proof-store';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { Wires } from './wires';

/** Runs of proofs: begun, stopped, gone on with, kept and read again. */
export class Proofs {
  /** By job, the run that goes on: its end is not written yet. */
  private readonly open = new Map<string, string>();

  constructor(
    private readonly store: Store,
    private readonly wires: Pick<Wires, 'at'>,
    private readonly changed: (jobId: string) => void,
  ) {}

  async begin(jobId: string, { scope, perSecond }: ProofWish, actor: Actor): Promise<string> {
    const { doc, revision } = await this.store.planState(jobId);
    const plan = planOf(doc);
    const interfaceIds = interfacesIn(plan, scope).map(({ at }) => at.id);
    if (interfaceIds.length === 0) throw Refusal.of('proof.nothing', '');
    const wire = this.wires.at(jobId);
    await wire.listen(actor);
    const { source, runId } = wire.status;
    const proof = await this.store.proofs.add({
      ...{ job_id: jobId, run_id: runId ?? null, source: source ?? '', person: actor.name },
      ...{ revision, scope: scopeTitle(plan, scope), interface_ids: interfaceIds },
    });
    await this.send(proof, interfaceIds, perSecond, actor);
    return proof.id;
  }

  /** Asks for what a run has not asked for yet. */
  async goOn(jobId: string, id: string, perSecond: number, actor: Actor): Promise<void> {
    const [proof, plan, results] = await Promise.all([
      this.store.proofs.find(jobId, id),
      this.store.plan(jobId),
      this.store.proofs.results(jobId, id),
    ]);
    const asked = new Set(results.map(({ interfaceId }) => interfaceId));
    const planned = new Set(interfacesIn(plan, { kind: 'job' }).map(({ at }) => at.id));
    const left = proof.interface_ids.filter((one) => planned.has(one) && !asked.has(one));
    if (left.length === 0) throw Refusal.of('proof.nothingLeft', '');
    await this.wires.at(jobId).listen(actor);
    await this.store.proofs.reopen(id);
    await this.send(proof, left, perSecond, actor);
  }

  stop(jobId: string): Promise<void> {
    return this.wires.at(jobId).callIfOpen({ kind: 'prove-stop' });
  }

  async list(jobId: string): Promise<readonly ProofView[]> {
    const rows = await this.store.proofs.list(jobId);
    const counts = await this.store.proofs.counts(jobId, rows);
    return rows.map((row) => viewOf(row, counts));
  }

  async one(jobId: string, id: string): Promise<ProofDetailView> {
    const [row, results] = await Promise.all([
      this.store.proofs.find(jobId, id),
      this.store.proofs.results(jobId, id),
    ]);
    const counts = await this.store.proofs.counts(jobId, [row]);
    return {
      ...viewOf(
        { ...row, total: row.interface_ids.length, strangers: row.strangers.length },
        counts,
      ),
      ...{ interfaceIds: row.interface_ids, results, strangers: row.strangers },
    };
  }

  /** The wire of a job tells how its run stands: the end is written once. Where it tells of none, its thread fell over. */
  stateChanged(jobId: string, state: ProofState | undefined): void {
    const open = this.open.get(jobId);
    if (open === undefined || (state && (state.proofId !== open || state.how === undefined)))
      return;
    this.open.delete(jobId);
    void this.store.proofs
      .end(open, state?.how ?? 'cut-off', state?.strangers ?? [])
      .then(() => this.changed(jobId))
      // While the database is away it stays open there; the next start ends it.
      .catch(() => undefined);
  }

  private async send(
    { id, job_id: jobId }: ProofRow,
    interfaceIds: readonly string[],
    perSecond: number,
    actor: Actor,
  ): Promise<void> {
    try {
      await this.wires.at(jobId).call({
        kind: 'prove',
        proofId: id,
        interfaceIds,
        perSecond,
        person: actor.name,
      });
    } catch (error) {
      await this.store.proofs.end(id, 'stopped', []);
      throw error;
    }
    // Only now: what the wire told before was of the run before, or of this one before it went on.
    this.open.set(jobId, id);
    this.changed(jobId);
  }
}

function viewOf(row: Omit<ProofHead, 'counts'>, counts: ProofCounts): ProofView {
  const count = (kind: EvidenceKind) => counts.get(row.id)?.[kind] ?? 0;
  return {
    ...{ id: row.id, source: row.source, person: row.person, revision: row.revision },
    ...{ scope: row.scope, startedAt: row.started_at.getTime(), how: row.how },
    ...{ endedAt: row.ended_at?.getTime() ?? null, total: row.total },
    ...{ proven: count('found-as-planned'), contradicted: count('contradicted') },
    ...{ silent: count('no-answer'), strangers: row.strangers },
  };
}
