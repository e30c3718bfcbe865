import {
  interfacesIn,
  planOf,
  scopeTitle,
  type ProofDetailView,
  type ProofState,
  type ProofView,
  type ProofWish,
} from '@ipsonomo/core';
import type { Field } from '../field/field';
import type { ProofRow } from '../store/models';
import type { ProofCounts } from '../store/proof-store';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Person } from './change-plan';
import type { FieldService } from './field-service';

/** Runs of proofs: begun, stopped, gone on with, kept and read again. */
export class Proofs {
  /** The run whose end was written last. */
  private noted: string | undefined;

  constructor(
    private readonly store: Store,
    private readonly field: Field,
    private readonly service: Pick<FieldService, 'listen'>,
    private readonly changed: (jobId: string) => void,
  ) {}

  async begin(jobId: string, { scope, perSecond }: ProofWish, person: Person): Promise<string> {
    const { doc, revision } = await this.store.planState(jobId);
    const plan = planOf(doc);
    const interfaceIds = interfacesIn(plan, scope).map(({ at }) => at.id);
    if (interfaceIds.length === 0) throw Refusal.of('proof.nothing', '');
    await this.service.listen(jobId, person);
    const { source, runId } = this.field.status;
    const proof = await this.store.proofs.add({
      ...{ job_id: jobId, run_id: runId ?? null, source: source ?? '', person: person.name },
      ...{ revision, scope: scopeTitle(plan, scope), interface_ids: interfaceIds },
    });
    await this.send(proof, interfaceIds, perSecond, person);
    return proof.id;
  }

  /** Asks for what a run has not asked for yet. */
  async goOn(jobId: string, id: string, perSecond: number, person: Person): Promise<void> {
    const [proof, plan, results] = await Promise.all([
      this.store.proofs.find(jobId, id),
      this.store.plan(jobId),
      this.store.proofs.results(jobId, id),
    ]);
    const asked = new Set(results.map(({ interfaceId }) => interfaceId));
    const planned = new Set(interfacesIn(plan, { kind: 'job' }).map(({ at }) => at.id));
    const left = proof.interface_ids.filter((one) => planned.has(one) && !asked.has(one));
    if (left.length === 0) throw Refusal.of('proof.nothingLeft', '');
    await this.service.listen(jobId, person);
    await this.store.proofs.reopen(id);
    this.noted = undefined;
    await this.send(proof, left, perSecond, person);
  }

  stop(): Promise<void> {
    return this.field.call({ kind: 'prove-stop' });
  }

  async list(jobId: string): Promise<readonly ProofView[]> {
    const [rows, counts] = await Promise.all([
      this.store.proofs.list(jobId),
      this.store.proofs.counts(jobId),
    ]);
    return rows.map((row) => viewOf(row, counts));
  }

  async one(jobId: string, id: string): Promise<ProofDetailView> {
    const [row, counts, results] = await Promise.all([
      this.store.proofs.find(jobId, id),
      this.store.proofs.counts(jobId),
      this.store.proofs.results(jobId, id),
    ]);
    return {
      ...viewOf(row, counts),
      ...{ interfaceIds: row.interface_ids, results, strangers: row.strangers },
    };
  }

  /** The wire tells how the run stands: its end is written once. */
  stateChanged(state: ProofState | undefined, jobId: string | undefined): void {
    if (state?.how === undefined || jobId === undefined || state.proofId === this.noted) return;
    const { proofId, how, strangers } = state;
    this.noted = proofId;
    void this.store.proofs
      .end(proofId, how, strangers)
      .then(() => this.changed(jobId))
      // While the database is away it stays open there; the next start ends it.
      .catch(() => undefined);
  }

  private async send(
    { id, job_id: jobId }: ProofRow,
    interfaceIds: readonly string[],
    perSecond: number,
    { name: person }: Person,
  ): Promise<void> {
    try {
      await this.field.call({ kind: 'prove', proofId: id, interfaceIds, perSecond, person });
    } catch (error) {
      await this.store.proofs.end(id, 'stopped', []);
      throw error;
    }
    this.changed(jobId);
  }
}

function viewOf(row: ProofRow, counts: ProofCounts): ProofView {
  const of = counts.get(row.id);
  const [proven, contradicted, silent] = (
    ['found-as-planned', 'contradicted', 'no-answer'] as const
  ).map((kind) => of?.get(kind) ?? 0) as [number, number, number];
  return {
    ...{ id: row.id, source: row.source, person: row.person, revision: row.revision },
    ...{ scope: row.scope, startedAt: row.started_at.getTime(), how: row.how },
    ...{ endedAt: row.ended_at?.getTime() ?? null, total: row.interface_ids.length },
    ...{ proven, contradicted, silent, strangers: row.strangers.length },
  };
}
