import type { Transaction } from 'objection';
import type { Knex } from 'knex';
import type { Issue } from '@ipsonomo/core/net';
import {
  applyEdits,
  docFromThings,
  docOf,
  FIRST_SETTINGS,
  firstDoc,
  readEdits,
  readThing,
  THING_TYPES,
  type Edit,
  type PlanDoc,
  type ThingDoc,
  type ThingType,
} from '@ipsonomo/core/plan';
import { LRUCache } from 'lru-cache';
import { MOST_KEPT } from '../common/most-kept';
import { Turns } from '@ipsonomo/threads';
import { insertEvidence, type NewEvidence } from './evidence';
import { AT_ONE_MOMENT } from './moment';
import { JobRow, RevisionRow, type ThingRow } from './models';
import { Refusal } from './refusal';
import { rowPages } from './row-pages';
import type { Waited } from '../common/waited';
import { doneBefore, noteRevision } from './waited';

/** Who changes a plan, and why. */
export interface Change {
  readonly jobId: string;
  /** As they are called now. */
  readonly person: string;
  /** Undefined of the machine's own person. */
  readonly account?: string | undefined;
  readonly what: string;
  /** Undefined of what is done as it is asked for. */
  readonly waited?: Waited | undefined;
  /** The revision that is taken back by this one. */
  readonly undoes?: number;
  /** It only brings the plan to where revisions lead that were made elsewhere. */
  readonly isJoining?: boolean;
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
  /** Undefined of what was done before. */
  readonly result: T | undefined;
  /** It was sent once more; revision and edits are those of the first time. */
  readonly isAgain: boolean;
}

/** What a person decides: the edits, and the evidence of it, which stands or falls with them. */
export interface Decision<T> {
  readonly edits: readonly Edit[];
  readonly result: T;
  readonly evidence?: readonly NewEvidence[];
}

const AT_ONCE = 500;

/**
 * Plans as things in a table, kept in memory at their last revision and brought forward by the edits since: a plan is
 * read whole once, by one reader for all, however many see that there is a newer revision. What is known only gets
 * newer.
 */
export class PlanStore {
  private readonly known = new LRUCache<string, PlanState>({ max: MOST_KEPT });
  private readonly turns = new Map<string, Turns>();
  /** By job, who is bringing it forward just now. */
  private readonly bringing = new Map<string, Promise<PlanState>>();

  constructor(private readonly knex: Knex) {}

  /** The things of a new job. @param doc as it was elsewhere, before anything was changed */
  async begin(jobId: string, trx: Transaction, doc: PlanDoc = firstDoc()): Promise<void> {
    await write(jobId, trx, editsOfNew(doc));
  }

  /** The plan at its last revision, or at a newer one that was made meanwhile. */
  async read(jobId: string): Promise<PlanState> {
    const head = await headOf(jobId, this.knex);
    let known = this.known.get(jobId);
    // One that goes on may have begun before this revision was made.
    for (let most = MOST_ATTEMPTS; most > 0 && !isUpTo(known, head); most -= 1)
      known = await this.bring(jobId);
    if (isUpTo(known, head)) return this.named(jobId, known, head);
    // It had this revision a moment ago.
    throw Refusal.of('thing.unknown', 'job');
  }

  private named(jobId: string, known: PlanState, head: Head): PlanState {
    if (known.lastNamed === head.lastNamed) return known;
    const state = { ...known, lastNamed: head.lastNamed };
    this.remember(jobId, state);
    return state;
  }

  /** An older state never takes the place of a newer one, whoever read it. */
  private remember(jobId: string, state: PlanState): PlanState {
    const known = this.known.get(jobId);
    if (known && known.revision > state.revision) return known;
    this.known.set(jobId, state);
    return state;
  }

  private bring(jobId: string): Promise<PlanState> {
    const going = this.bringing.get(jobId);
    if (going) return going;
    const one = this.knex
      .transaction((trx) => this.forward(jobId, trx), AT_ONE_MOMENT)
      .then((state) => this.remember(jobId, state))
      .finally(() => this.bringing.delete(jobId));
    this.bringing.set(jobId, one);
    return one;
  }

  /** What is known, with the edits since; all of it where nothing is, or they do not follow on it. */
  private async forward(jobId: string, trx: Transaction): Promise<PlanState> {
    const head = await headOf(jobId, trx);
    const known = this.known.get(jobId);
    if (known?.revision === head.revision) return known;
    const since =
      known && known.revision < head.revision ? await after(known, jobId, trx) : undefined;
    return { ...head, doc: since ?? (await load(jobId, trx)) };
  }

  async change<T>(
    change: Change,
    decide: (state: PlanState) => Decision<T> | Refusal,
  ): Promise<Changed<T>> {
    const { jobId } = change;
    // Read before the lock is taken, and not on a second connection while others wait for this one.
    await this.read(jobId);
    // Who waits for others of the same job does so without a connection, which everybody else needs.
    return this.turnsOf(jobId).take(async () => {
      const { state, ...made } = await this.make(change, decide);
      // Only what was committed is known.
      this.remember(jobId, state);
      return made;
    });
  }

  private turnsOf(jobId: string): Turns {
    let turns = this.turns.get(jobId);
    if (!turns) this.turns.set(jobId, (turns = new Turns()));
    return turns;
  }

  private make<T>(
    { jobId, ...change }: Change,
    decide: (state: PlanState) => Decision<T> | Refusal,
  ): Promise<Changed<T> & { readonly state: PlanState }> {
    return JobRow.transaction(this.knex, async (trx) => {
      // No key is changed: evidence, which only refers to the job, is written meanwhile by whoever holds its chain.
      const locked = await JobRow.query(trx).findById(jobId).forNoKeyUpdate();
      if (!locked) throw Refusal.of('thing.unknown', 'job');
      const state = await this.forward(jobId, trx);
      const before = change.waited && (await doneBefore(trx, jobId, change.waited));
      if (before) return { state, ...(await madeBefore(trx, jobId, before.revision)) };
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
      const { result } = decided;
      if (applied.length === 0)
        return { state, revision: state.revision, edits: applied, result, isAgain: false };
      const revision = state.revision + 1;
      await write(jobId, trx, applied, doc);
      await RevisionRow.query(trx).insert({
        ...{ job_id: jobId, number: revision, person: change.person, what: change.what },
        edits: applied,
        ...{ undoes: change.undoes ?? null, account_id: change.account ?? null },
        is_joining: change.isJoining ?? false,
      });
      if (change.waited) await noteRevision(trx, jobId, change.waited, revision);
      const after = { ...state, revision, doc };
      return { state: after, revision, edits: applied, result, isAgain: false };
    });
  }
}

/** What an act made that was sent once more. @param revision null where it changed nothing */
async function madeBefore(
  trx: Transaction,
  jobId: string,
  revision: number | null,
): Promise<Changed<never>> {
  const row =
    revision === null
      ? undefined
      : await RevisionRow.query(trx).select('edits').findById([jobId, revision]);
  return { revision: revision ?? 0, edits: row?.edits ?? [], result: undefined, isAgain: true };
}

type Head = Pick<PlanState, 'revision' | 'lastNamed'>;

const MOST_ATTEMPTS = 3;

const isUpTo = (known: PlanState | undefined, head: Head): known is PlanState =>
  known !== undefined && known.revision >= head.revision;

async function headOf(jobId: string, knex: Knex | Transaction): Promise<Head> {
  const { rows } = await knex.raw<{ rows: readonly Head[] }>(
    `select coalesce((select max(number) from revision where job_id = :jobId), 0) as revision,
       coalesce((select max(number) from revision where job_id = :jobId and name is not null), 0)
         as "lastNamed"`,
    { jobId },
  );
  return rows[0] ?? { revision: 0, lastNamed: 0 };
}

/** The document after the edits of later revisions; undefined where they do not follow on what is known. */
async function after(
  known: PlanState,
  jobId: string,
  trx: Transaction,
): Promise<PlanDoc | undefined> {
  const rows = await RevisionRow.query(trx)
    .select('edits')
    .where('job_id', jobId)
    .where('number', '>', known.revision)
    .orderBy('number');
  let { doc } = known;
  for (const { edits } of rows) {
    // In their shape: the database keeps the fields of an object in an order of its own.
    const read = readEdits(edits);
    const outcome = read.ok ? applyEdits(doc, read.value) : read;
    if (!outcome.ok) return undefined;
    ({ doc } = outcome.value);
  }
  return doc;
}

type StoredThing = Pick<ThingRow, 'type' | 'id' | 'body'>;

/** Reads every thing in its shape, so that what an older version left out is filled in. */
async function load(jobId: string, trx: Transaction): Promise<PlanDoc> {
  const query = trx('thing').select('type', 'id', 'body').where('job_id', jobId).orderBy('ordinal');
  const things: (readonly [ThingType, ThingDoc])[] = [];
  for await (const rows of rowPages<StoredThing>(query, trx)) things.push(...readRows(jobId, rows));
  if (things.length === 0 && !(await JobRow.query(trx).findById(jobId)))
    throw Refusal.of('thing.unknown', 'job');
  const settings = docOf('settings', FIRST_SETTINGS);
  const hasSettings = things.some(([type]) => type === 'settings');
  return docFromThings(hasSettings ? things : [['settings', settings], ...things]);
}

function readRows(
  jobId: string,
  rows: readonly StoredThing[],
): readonly (readonly [ThingType, ThingDoc])[] {
  const issues: Issue[] = [];
  const things = rows.flatMap((row): (readonly [ThingType, ThingDoc])[] => {
    const type = THING_TYPES.find((one) => one === row.type);
    const doc = type && readThing(type, row.body, `${row.type} ${row.id}`, issues);
    return type && doc ? [[type, doc]] : [];
  });
  if (issues.length > 0) throw new Error(`plan ${jobId}: ${JSON.stringify(issues.slice(0, 3))}`);
  return things;
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
