import type { Knex } from 'knex';
import { raw } from 'objection';
import type { ProofEnd, ProofResult, Stranger } from '@ipsonomo/core';
import { asking } from './asking';
import { EvidenceRow, ProofRow } from './models';
import { Refusal } from './refusal';
import { toEvidence } from './rows';

export type NewProof = Pick<
  ProofRow,
  'job_id' | 'run_id' | 'source' | 'person' | 'revision' | 'scope' | 'interface_ids'
>;

/** Of every run how many interfaces ended as what, by the last that it kept of each. */
export type ProofCounts = ReadonlyMap<string, ReadonlyMap<string, number>>;

const MOST_PROOFS = 200;
/** Which run an evidence belongs to stands in its facts. */
const OF_PROOF = "facts->>'proof'";

/** The runs of proofs; what they found is evidence like any other. */
export class ProofStore {
  constructor(private readonly knex: Knex) {}

  add(proof: NewProof): Promise<ProofRow> {
    return asking(() =>
      ProofRow.query(this.knex).insertAndFetch({
        ...proof,
        interface_ids: [...proof.interface_ids],
      }),
    );
  }

  find(jobId: string, id: string): Promise<ProofRow> {
    return asking(async () => {
      const row = await ProofRow.query(this.knex).findById(id).where('job_id', jobId);
      if (!row) throw Refusal.of('thing.unknown', 'run');
      return row;
    });
  }

  /** Newest first. */
  list(jobId: string): Promise<readonly ProofRow[]> {
    return asking(() =>
      ProofRow.query(this.knex)
        .where('job_id', jobId)
        .orderBy('started_at', 'desc')
        .limit(MOST_PROOFS),
    );
  }

  /** Somebody goes on with it. */
  reopen(id: string): Promise<void> {
    return asking(async () => {
      await ProofRow.query(this.knex).findById(id).patch({ ended_at: null, how: null });
    });
  }

  end(id: string, how: ProofEnd, strangers: readonly Stranger[]): Promise<void> {
    return asking(async () => {
      await ProofRow.query(this.knex)
        .findById(id)
        .whereNull('ended_at')
        .patch({ ended_at: new Date(), how, strangers: [...strangers] });
    });
  }

  /** Runs that were cut off end with the last thing they kept. */
  endLeft(): Promise<void> {
    return asking(async () => {
      await this.knex.raw(`
        update proof set how = 'cut-off', ended_at = coalesce(
          (select max(at) from evidence where evidence.job_id = proof.job_id
            and ${OF_PROOF} = proof.id::text), started_at)
        where ended_at is null`);
    });
  }

  /** What a run kept, the last of each interface. */
  results(jobId: string, id: string): Promise<readonly ProofResult[]> {
    return asking(async () => {
      const rows = await EvidenceRow.query(this.knex)
        .distinctOn('interface_id')
        .where('job_id', jobId)
        .whereRaw(`${OF_PROOF} = ?`, [id])
        .orderBy([
          'interface_id',
          { column: 'at', order: 'desc' },
          { column: 'id', order: 'desc' },
        ]);
      return rows.map((row) => {
        const { kind, at, facts } = toEvidence(row);
        return { interfaceId: row.interface_id, kind, at, facts };
      });
    });
  }

  counts(jobId: string): Promise<ProofCounts> {
    return asking(async () => {
      const last = EvidenceRow.query(this.knex)
        .distinctOn(raw(OF_PROOF), 'interface_id')
        .select('kind', raw(`${OF_PROOF} as proof`))
        .where('job_id', jobId)
        .whereRaw(`${OF_PROOF} is not null`)
        .orderByRaw(`${OF_PROOF}, interface_id, at desc, id desc`);
      const rows = await this.knex
        .select('proof', 'kind')
        .count('* as count')
        .from(last.toKnexQuery().as('last'))
        .groupBy('proof', 'kind');
      const counts = new Map<string, Map<string, number>>();
      for (const { proof, kind, count } of rows as readonly CountRow[])
        counts.set(proof, (counts.get(proof) ?? new Map()).set(kind, Number(count)));
      return counts;
    });
  }
}

interface CountRow {
  readonly proof: string;
  readonly kind: string;
  readonly count: string;
}
