import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import type { Evidence } from '@ipsonomo/core/plan';
import { MOST_KEPT } from '../common/most-kept';
import { EvidenceRow } from './models';
import { AT_ONE_MOMENT } from './moment';
import { rowPages } from './row-pages';
import { toEvidence } from './rows';

/** Of every interface the last evidence of each kind, MAC and address, oldest first. */
export interface Latest {
  /** Of the last piece of evidence that is in it, counted in its job from 1. */
  readonly place: number;
  /** A list stays the same one until something comes to it. */
  readonly byInterface: ReadonlyMap<string, readonly Evidence[]>;
}

const NOTHING: Latest = { place: 0, byInterface: new Map() };

/** So many pieces are read one by one; beyond that the table of the latest is quicker. */
const MOST_BEHIND = 5000;

const COLUMNS = ['id', 'interface_id', 'kind', 'at', 'mac', 'address', 'source', 'person', 'facts'];

type PlacedRow = EvidenceRow & { readonly place: string };

/**
 * The latest evidence of jobs, kept in memory and brought forward by what was written since. Pieces of one job are
 * numbered in the order of their transactions, so whoever has all up to a place misses none before it.
 */
export class LatestEvidence {
  private readonly known = new LRUCache<string, Latest>({ max: MOST_KEPT });
  private readonly bringing = new Map<string, Promise<Latest>>();

  constructor(private readonly knex: Knex) {}

  async of(jobId: string): Promise<Latest> {
    const place = await lastPlace(jobId, this.knex);
    const known = this.known.get(jobId) ?? NOTHING;
    // A reading that goes on may have begun before what was written last.
    if (known.place >= place) return known;
    const going = await this.bring(jobId);
    return going.place >= place ? going : this.bring(jobId);
  }

  private bring(jobId: string): Promise<Latest> {
    const going = this.bringing.get(jobId);
    if (going) return going;
    const one = this.knex
      .transaction((trx) => this.forward(jobId, trx), AT_ONE_MOMENT)
      .finally(() => this.bringing.delete(jobId));
    this.bringing.set(jobId, one);
    return one;
  }

  private async forward(jobId: string, trx: Knex.Transaction): Promise<Latest> {
    const place = await lastPlace(jobId, trx);
    const known = this.known.get(jobId);
    const next =
      known && place - known.place <= MOST_BEHIND
        ? withNew(known, await newOf(jobId, known.place, trx), place)
        : { place, byInterface: await allOf(jobId, trx) };
    this.known.set(jobId, next);
    return next;
  }
}

async function lastPlace(jobId: string, knex: Knex): Promise<number> {
  const { rows } = await knex.raw<{ rows: readonly { place: string | null }[] }>(
    'select max(place) as place from evidence where job_id = ?',
    [jobId],
  );
  return Number(rows[0]?.place ?? 0);
}

async function allOf(jobId: string, trx: Knex.Transaction): Promise<Map<string, Evidence[]>> {
  const query = trx('evidence')
    .select(COLUMNS.map((column) => `evidence.${column}`))
    .join('latest_evidence', 'latest_evidence.evidence_id', 'evidence.id')
    .where('latest_evidence.job_id', jobId)
    .orderBy(['evidence.at', 'evidence.id']);
  const byInterface = new Map<string, Evidence[]>();
  for await (const rows of rowPages<EvidenceRow>(query, trx))
    for (const row of rows) {
      const list = byInterface.get(row.interface_id);
      if (list) list.push(toEvidence(row));
      else byInterface.set(row.interface_id, [toEvidence(row)]);
    }
  return byInterface;
}

const newOf = (jobId: string, since: number, trx: Knex.Transaction): Promise<PlacedRow[]> =>
  EvidenceRow.query(trx)
    .select([...COLUMNS, 'place'])
    .where('job_id', jobId)
    .where('place', '>', since)
    .orderBy('place')
    .castTo<PlacedRow[]>()
    .execute();

function withNew(known: Latest, rows: readonly PlacedRow[], place: number): Latest {
  if (rows.length === 0) return known;
  const byInterface = new Map(known.byInterface);
  for (const row of rows)
    byInterface.set(
      row.interface_id,
      withOne(byInterface.get(row.interface_id) ?? [], toEvidence(row)),
    );
  return { place, byInterface };
}

/** What is no newer than the one that is known of its kind, MAC and address changes nothing. */
function withOne(list: readonly Evidence[], one: Evidence): readonly Evidence[] {
  const same = list.find(
    ({ kind, mac, address }) => kind === one.kind && mac === one.mac && address === one.address,
  );
  if (same && byTime(same, one) > 0) return list;
  return [...list.filter((other) => other !== same), one].sort(byTime);
}

const byTime = (a: Evidence, b: Evidence): number => a.at - b.at || Number(a.id) - Number(b.id);
