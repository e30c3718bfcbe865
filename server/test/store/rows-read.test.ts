import { must, parseMac } from '@ipsonomo/core/net';
import type { Knex } from 'knex';
import { ip } from '../../../core/test/wire/samples';
import { JobSummaries } from '../../src/service/job-summaries';
import { PlanReader } from '../../src/service/read-plan';
import type { NewEvidence } from '../../src/store/evidence';
import { migrate, openDatabase } from '../../src/store/database';
import { Store } from '../../src/store/store';

// What PostgreSQL itself counts (pg_stat_statements, of its contributed modules): ten times as much evidence of the same
// devices is ten times as much only for whoever asks for all of it.

const NAME = `t_rows_read_${process.pid}`;
const admin = process.env['E2E_DATABASE_URL'] ?? '';
const INTERFACES = 30;
const BEGUN = 1_790_000_000_000; // ms since 1970

let cluster: Knex;
let knex: Knex;
let jobId: string;

beforeAll(async () => {
  cluster = openDatabase({ url: admin });
  await cluster.raw('drop database if exists ?? with (force)', [NAME]);
  await cluster.raw('create database ??', [NAME]);
  await cluster.raw('create extension if not exists pg_stat_statements');
  knex = openDatabase({ url: admin.replace(/\/ipsonomo$/, `/${NAME}`) });
  await migrate(knex);
  jobId = (await new Store(knex).addJob('Asked often')).id;
});
afterAll(async () => {
  await knex.destroy();
  await cluster.raw('drop database ?? with (force)', [NAME]);
  await cluster.destroy();
});

const piece = (number: number): NewEvidence => ({
  ...{ jobId, interfaceId: `i${number % INTERFACES}`, kind: 'asked' as const },
  ...{ at: BEGUN + number, mac: must(parseMac('02:00:5e:00:53:11')), address: ip('10.0.0.2') },
  ...{
    facts: { message: 'DISCOVER' },
    source: 'practice',
    person: '',
    runId: undefined,
    sequence: undefined,
  },
  bytes: undefined,
});

let written = 0;
async function writeTo(count: number): Promise<void> {
  const { evidence } = new Store(knex);
  for (; written < count; written += 500)
    await evidence.append(Array.from({ length: 500 }, (_, at) => piece(written + at)));
  await knex.raw('vacuum analyze evidence');
  await knex.raw('vacuum analyze latest_evidence');
}

/** Rows and blocks that PostgreSQL counted in this database while something was done. */
async function counted(act: () => Promise<unknown>): Promise<{ rows: number; blocks: number }> {
  const { rows: databases } = await cluster.raw<{ rows: { oid: number }[] }>(
    'select oid from pg_database where datname = ?',
    [NAME],
  );
  const oid = databases[0]?.oid ?? 0;
  await cluster.raw('select pg_stat_statements_reset(0, ?, 0)', [oid]);
  await act();
  const { rows } = await cluster.raw<{ rows: { rows: string; blocks: string }[] }>(
    `select sum(rows) as rows, sum(shared_blks_hit + shared_blks_read) as blocks
     from pg_stat_statements where dbid = ?`,
    [oid],
  );
  return { rows: Number(rows[0]?.rows ?? 0), blocks: Number(rows[0]?.blocks ?? 0) };
}

/** Each as after a start, when nothing is known yet. */
const QUESTIONS: Readonly<Record<string, () => Promise<unknown>>> = {
  'what was seen': () => new Store(knex).evidence.latest(jobId),
  'what came since': async () => {
    const { evidence } = new Store(knex);
    await evidence.latest(jobId);
    await evidence.append([{ ...piece(0), at: BEGUN + 1e9 }]);
    await evidence.latest(jobId);
  },
  'a page of a job': () => new PlanReader(new Store(knex)).progress(jobId),
  'one device': () => new Store(knex).evidence.of(jobId, 'i3', 20),
  'the list of jobs': () =>
    new JobSummaries(
      new Store(knex),
      () =>
        Promise.resolve({
          subnets: 0,
          devices: 0,
          left: { plan: 0, assign: 0, prove: 0, handOver: 0 },
        }),
      'test',
    ).list(),
  'the proofs': () => new Store(knex).proofs.list(jobId),
  'the revisions': () => new Store(knex).revisionList(jobId),
};

test('ten times as much evidence: no question reads more rows, or more than a few more blocks', async () => {
  const measured = async () => {
    const all: Record<string, { rows: number; blocks: number }> = {};
    for (const [name, ask] of Object.entries(QUESTIONS)) {
      await ask(); // what is read once of the tables themselves
      all[name] = await counted(ask);
    }
    return all;
  };
  await writeTo(1000);
  const few = await measured();
  await writeTo(10_000);
  const many = await measured();
  for (const name of Object.keys(QUESTIONS)) {
    const [a, b] = [few[name], many[name]];
    expect([name, b?.rows]).toEqual([name, a?.rows]);
    // What was read whole while it was small is looked up row by row now: an index of a few levels and the row itself,
    // twice where two tables are asked. All of the table would be hundreds.
    const most = Math.max(2 * (a?.blocks ?? NaN), 8 * (b?.rows ?? NaN)) + 60;
    expect([name, (b?.blocks ?? NaN) <= most, a, b]).toEqual([name, true, a, b]);
  }
  // The counter counts: whoever asks for all reads all.
  const all = await counted(() => knex('evidence').where('job_id', jobId));
  expect(all.rows).toBeGreaterThanOrEqual(10_000);
});
