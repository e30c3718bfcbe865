import type { Knex } from 'knex';
import type { Evidence } from '@ipsonomo/core/plan';
import { ipText, macText } from './rows';

export interface NewEvidence extends Omit<Evidence, 'id'> {
  readonly jobId: string;
  readonly interfaceId: string;
  readonly runId: string | undefined;
  readonly sequence: number | undefined;
  readonly bytes: Buffer | undefined;
}

/** Writes pieces of evidence; one of a run that is there already stays as it is. */
export async function insertEvidence(knex: Knex, evidence: readonly NewEvidence[]): Promise<void> {
  if (evidence.length === 0) return;
  const rows = evidence.map((one) => ({
    job_id: one.jobId,
    interface_id: one.interfaceId,
    run_id: one.runId ?? null,
    sequence: one.sequence ?? null,
    kind: one.kind,
    at: new Date(one.at),
    mac: macText(one.mac),
    address: ipText(one.address),
    source: one.source,
    person: one.person,
    facts: JSON.stringify(one.facts),
    bytes: one.bytes ?? null,
  }));
  await knex('evidence').insert(rows).onConflict(['run_id', 'sequence']).ignore();
}
