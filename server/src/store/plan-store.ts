import { raw, type Transaction } from 'objection';
import type { Knex } from 'knex';
import {
  applyEdits,
  docFromThings,
  docOf,
  FIRST_SETTINGS,
  firstDoc,
  readThing,
  THING_TYPES,
  type Edit,
  type Issue,
  type PlanDoc,
  type ThingDoc,
  type ThingType,
} from '@ipsonomo/core';
import { insertEvidence, type NewEvidence } from './evidence';
import { JobRow, RevisionRow, ThingRow } from './models';
import { Refusal } from './refusal';

/** Who changes a plan, and why. */
export interface Change {
  readonly jobId: string;
  readonly person: string;
  readonly what: string;
  /** The revision that is taken back by this one. */
  readonly undoes?: number;
}

/** A plan at one revision. */
export interface PlanState {
  readonly revision: number;
  /** The last revision that has a name, 0 for none. */
  readonly lastNamed: number;
  readonly doc: PlanDoc;
}

/** What a change made: the revision (the last one where nothing changed) and the edits of it. */
export interface Changed<T> {
  readonly revision: number;
  readonly edits: readonly Edit[];
  readonly result: T;
}

/** What a person decides: the edits, and the evidence of it, which stands or falls with them. */
export interface Decision<T> {
  readonly edits: readonly Edit[];
  readonly result: T;
  readonly evidence?: readonly NewEvidence[];
}

const AT_ONCE = 500;

/**
 * Plans as things in a table, kept in memory at their last revision: an edit then reads nothing but
 * the number of the revision, under the lock of its job.
 */
export class PlanStore {
  private readonly known = new Map<string, PlanState>();

  constructor(private readonly knex: Knex) {}

  /** The things of a new job. */
  async begin(jobId: string, trx: Transaction): Promise<void> {
    await write(jobId, trx, editsOfNew(firstDoc()));
  }

  forget(jobId: string): void {
    this.known.delete(jobId);
  }

  async read(jobId: string, knex: Knex | Transaction): Promise<PlanState> {
    const known = this.known.get(jobId);
    if (known && (await revisionOf(jobId, knex)).revision === known.revision) return known;
    const head = await revisionOf(jobId, knex);
    const state = { ...head, doc: await load(jobId, knex) };
    this.known.set(jobId, state);
    return state;
  }

  async change<T>(
    change: Change,
    decide: (state: PlanState) => Decision<T> | Refusal,
  ): Promise<Changed<T>> {
    const { jobId } = change;
    const made = await JobRow.transaction(this.knex, async (trx) => {
      // No key is changed: evidence, which only refers to the job, is written meanwhile by whoever holds its chain.
      const locked = await JobRow.query(trx).findById(jobId).forNoKeyUpdate();
      if (!locked) throw Refusal.of('thing.unknown', 'job');
      const state = await this.read(jobId, trx);
      const decided = decide(state);
      if (decided instanceof Refusal) throw decided;
      const outcome = applyEdits(state.doc, decided.edits);
      if (!outcome.ok)
        throw new Refusal(
          [{ code: 'edit.conflict', where: '', facts: { count: outcome.error.length } }],
          outcome.error,
        );
      const { doc, applied } = outcome.value;
      await insertEvidence(trx, decided.evidence ?? []);
      if (applied.length === 0) return { state, edits: applied, result: decided.result };
      const revision = state.revision + 1;
      await write(jobId, trx, applied, doc);
      await RevisionRow.query(trx).insert({
        ...{ job_id: jobId, number: revision, person: change.person, what: change.what },
        edits: applied,
        undoes: change.undoes ?? null,
      });
      return { state: { ...state, revision, doc }, edits: applied, result: decided.result };
    });
    // Only what was committed is known.
    this.known.set(jobId, made.state);
    return { revision: made.state.revision, edits: made.edits, result: made.result };
  }
}

async function revisionOf(
  jobId: string,
  knex: Knex | Transaction,
): Promise<Pick<PlanState, 'revision' | 'lastNamed'>> {
  const row = await RevisionRow.query(knex)
    .where('job_id', jobId)
    .select(
      raw('coalesce(max(number), 0)').as('revision'),
      raw('coalesce(max(number) filter (where name is not null), 0)').as('lastNamed'),
    )
    .first()
    .castTo<Pick<PlanState, 'revision' | 'lastNamed'> | undefined>();
  return row ?? { revision: 0, lastNamed: 0 };
}

/** Reads every thing in its shape, so that what an older version left out is filled in. */
async function load(jobId: string, knex: Knex | Transaction): Promise<PlanDoc> {
  const rows = await ThingRow.query(knex).where('job_id', jobId).orderBy('ordinal');
  const issues: Issue[] = [];
  const things = rows.flatMap((row): (readonly [ThingType, ThingDoc])[] => {
    const type = THING_TYPES.find((one) => one === row.type);
    const doc = type && readThing(type, row.body, `${row.type} ${row.id}`, issues);
    return type && doc ? [[type, doc]] : [];
  });
  if (issues.length > 0) throw new Error(`plan ${jobId}: ${JSON.stringify(issues.slice(0, 3))}`);
  const settings = docOf('settings', FIRST_SETTINGS);
  const hasSettings = things.some(([type]) => type === 'settings');
  return docFromThings(hasSettings ? things : [['settings', settings], ...things]);
}

const editsOfNew = (doc: PlanDoc): readonly Edit[] =>
  THING_TYPES.flatMap((type) =>
    Array.from(doc[type].values(), (thing): Edit => ({ op: 'add', type, thing })),
  );

/** Writes what edits changed: each thing once, as it is afterwards. */
async function write(
  jobId: string,
  trx: Transaction,
  edits: readonly Edit[],
  after?: PlanDoc,
): Promise<void> {
  const rows = new Map<string, { type: ThingType; id: string; body: ThingDoc | undefined }>();
  for (const edit of edits) {
    const id = edit.op === 'set' ? edit.id : edit.thing.id;
    const body = after ? after[edit.type].get(id) : edit.op === 'add' ? edit.thing : undefined;
    rows.set(`${edit.type}/${id}`, { type: edit.type, id, body });
  }
  const kept = [...rows.values()].flatMap(({ body, ...row }) =>
    body ? [{ job_id: jobId, ...row, body: JSON.stringify(body) }] : [],
  );
  for (let i = 0; i < kept.length; i += AT_ONCE)
    await trx('thing')
      .insert(kept.slice(i, i + AT_ONCE))
      .onConflict(['job_id', 'type', 'id'])
      .merge(['body']);
  const gone = [...rows.values()].filter(({ body }) => body === undefined);
  for (let i = 0; i < gone.length; i += AT_ONCE)
    await trx('thing')
      .where('job_id', jobId)
      .whereIn(
        ['type', 'id'],
        gone.slice(i, i + AT_ONCE).map(({ type, id }) => [type, id]),
      )
      .delete();
}
