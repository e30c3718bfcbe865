import type { Knex } from 'knex';
import { raw } from 'objection';
import { CHECK_KINDS, isOneOf } from '@ipsonomo/core/plan';
import type { ProofEnd, ProofResult, Stranger } from '@ipsonomo/core/proof';
import { asking } from './asking';
import { EvidenceRow, ProofRow } from './models';
import { Refusal } from './refusal';
import { toEvidence } from './rows';

export type NewProof = Pick<
  ProofRow,
  'job_id' | 'run_id' | 'source' | 'person' | 'revision' | 'scope' | 'interface_ids'
>;

export interface ProofHead extends Pick<
  ProofRow,
  'id' | 'source' | 'person' | 'revision' | 'scope' | 'started_at' | 'ended_at' | 'how' | 'counts'
> {
  /** How many interfaces were to be asked. */
  readonly total: number;
  readonly strangers: number;
}

/** Of every run how many interfaces ended as what, by the last that it kept of each. */
export type ProofCounts = ReadonlyMap<string, Readonly<Record<string, number>>>;

const MOST_PROOFS = 200;
/** Evidence of a run may be written a moment after its end. */
const SETTLES = 60_000;
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

  /** Newest first, with numbers in place of lists: a run over a plant names thousands. */
  list(jobId: string): Promise<readonly ProofHead[]> {
    return asking(() =>
      ProofRow.query(this.knex)
        .select(
          ...['id', 'source', 'person', 'revision', 'scope', 'started_at', 'ended_at', 'how'],
          'counts',
          raw('jsonb_array_length(interface_ids)').as('total'),
          raw('jsonb_array_length(strangers)').as('strangers'),
        )
        .where('job_id', jobId)
        .orderBy('started_at', 'desc')
        .limit(MOST_PROOFS)
        .castTo<ProofHead[]>(),
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

  /** Runs of this server that were cut off end with the last thing they kept. */
  endLeft(): Promise<void> {
    return asking(async () => {
      await this.knex.raw(`
        update proof set how = 'cut-off', ended_at = coalesce(
          (select max(at) from evidence where evidence.job_id = proof.job_id
            and ${OF_PROOF} = proof.id::text), started_at)
        where ended_at is null and coalesce(server_id = own_server(), true)`);
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
      return rows.flatMap((row) => {
        const { at, ...told } = toEvidence(row);
        return isOneOf(CHECK_KINDS, told) ? [{ ...told, interfaceId: row.interface_id, at }] : [];
      });
    });
  }

  /** Counted once where a run has ended; what is kept of it later makes that void again. */
  counts(
    jobId: string,
    proofs: readonly Pick<ProofRow, 'id' | 'how' | 'ended_at' | 'counts'>[],
  ): Promise<ProofCounts> {
    return asking(async () => {
      const open = proofs.filter(({ counts }) => counts === null);
      const counted = await this.count(
        jobId,
        open.map(({ id }) => id),
      );
      const settled = Date.now() - SETTLES;
      for (const { id, how, ended_at: ended } of open)
        if (how !== null && ended && ended.getTime() < settled)
          await ProofRow.query(this.knex)
            .findById(id)
            .patch({ counts: counted.get(id) ?? {} });
      return new Map(proofs.map(({ id, counts }) => [id, counts ?? counted.get(id) ?? {}]));
    });
  }

  private async count(jobId: string, ids: readonly string[]): Promise<ProofCounts> {
    const counts = new Map<string, Record<string, number>>();
    if (ids.length === 0) return counts;
    const last = EvidenceRow.query(this.knex)
      .distinctOn(raw(OF_PROOF), 'interface_id')
      .select('kind', raw(`${OF_PROOF} as proof`))
      .where('job_id', jobId)
      .whereRaw(`${OF_PROOF} = any(?)`, [[...ids]])
      .orderByRaw(`${OF_PROOF}, interface_id, at desc, id desc`);
    const rows = await this.knex
      .select('proof', 'kind')
      .count('* as count')
      .from(last.toKnexQuery().as('last'))
      .groupBy('proof', 'kind');
    for (const { proof, kind, count } of rows as readonly CountRow[])
      counts.set(proof, { ...counts.get(proof), [kind]: Number(count) });
    return counts;
  }
}

interface CountRow {
  readonly proof: string;
  readonly kind: string;
  readonly count: string;
}
