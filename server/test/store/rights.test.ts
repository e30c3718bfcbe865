import { randomUUID } from 'node:crypto';
import { limitRights } from '../../src/store/rights';
import { Scratch } from '../scratch';

// The role that the server works with can add evidence, and neither change nor remove any.

const ROLE = `t_rights_${process.pid}`;
let scratch: Scratch;
const jobId = randomUUID();

beforeAll(async () => {
  scratch = await Scratch.open('rights');
  const { knex } = scratch;
  await knex.raw('create role ??', ROLE);
  await limitRights(knex, ROLE);
  await as('insert into job (id, name) values (?, ?)', [jobId, 'Sealed']);
  await as(ADD, [jobId]);
});
afterAll(async () => {
  await scratch.knex.raw('drop owned by ??', ROLE);
  await scratch.knex.raw('drop role ??', ROLE);
  await scratch.close();
});

const ADD = `insert into evidence (job_id, interface_id, kind, at, source, person, facts)
  values (?, 'at', 'said-kept', now(), 'desk', 'Mara Quist', '{}')`;

/** Asks as the server's own role would. */
const as = (sql: string, values: readonly string[] = []) =>
  scratch.knex.transaction(async (trx) => {
    await trx.raw('set local role ??', ROLE);
    return (await trx.raw(sql, [...values])) as { readonly rowCount: number };
  });

test.each([
  ['change it', "update evidence set person = 'nobody'"],
  ['remove it', 'delete from evidence'],
  ['empty the table', 'truncate evidence'],
  ['take off what seals it', 'drop trigger evidence_stays on evidence'],
  ['put it to sleep', 'alter table evidence disable trigger evidence_chains'],
  [
    'make the chain another',
    'create or replace function evidence_stays() returns trigger language plpgsql as $$ begin return new; end $$',
  ],
  ['remove the table', 'drop table evidence'],
  ['say that a migration was made', "insert into knex_migrations (name) values ('x')"],
])('it may not %s', async (_what, sql) => {
  await expect(as(sql)).rejects.toThrow(/permission denied|must be owner/);
});

test('it may add and read evidence, and change what is no evidence', async () => {
  expect((await as(ADD, [jobId])).rowCount).toBe(1);
  expect((await as('select * from evidence')).rowCount).toBe(2);
  expect((await as("update job set name = 'Other' where id = ?", [jobId])).rowCount).toBe(1);
  expect(await scratch.store.evidence.audit()).toEqual([]);
});

test('it may take a whole job away only archived, and written to a file as it is', async () => {
  const [id, remove] = [randomUUID(), 'select job_delete(?)'];
  await as('insert into job (id, name) values (?, ?)', [id, 'Going']);
  await as(ADD, [id]);
  await expect(as(remove, [id])).rejects.toThrow(/is not archived/);
  await as('update job set archived_at = now() where id = ?', [id]);
  await expect(as(remove, [id])).rejects.toThrow(/was not written to a file/);
  await scratch.store.whole.written(id, await scratch.store.whole.mark(id));
  // One piece more, and the file is of another state.
  await as(ADD, [id]);
  await expect(as(remove, [id])).rejects.toThrow(/was not written to a file/);
  await scratch.store.whole.written(id, await scratch.store.whole.mark(id));
  await as(remove, [id]);
  expect((await as('select * from evidence where job_id = ?', [id])).rowCount).toBe(0);
  // What seals the others is there again.
  await expect(scratch.knex.raw('delete from evidence')).rejects.toThrow(
    /never changed or removed/,
  );
  expect((await as('select * from job where id = ?', [jobId])).rowCount).toBe(1);
});
