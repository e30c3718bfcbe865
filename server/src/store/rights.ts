import type { Knex } from 'knex';

/** What the server may do with evidence; with the other tables it may do as it likes. */
const RIGHTS: Readonly<Record<string, string>> = {
  evidence: 'select, insert',
  photo: 'select, insert',
  // Kept by the trigger of what is added to the other, with its owner's rights.
  latest_evidence: 'select',
  // What was folded, by their owner.
  evidence_gap: 'select',
  evidence_count: 'select',
};
const OTHERS = 'select, insert, update, delete';

/**
 * Leaves the server's role the rights that it needs and no more: of evidence it can read and add, and neither change nor
 * remove any, nor take off what seals it. Asked as the owner of the tables, after migrations.
 */
export async function limitRights(owner: Knex, role: string): Promise<void> {
  const { rows } = await owner.raw<{ rows: { name: string }[] }>(
    'select tablename as name from pg_tables where schemaname = current_schema()',
  );
  const schema = await owner.raw<{ rows: { name: string }[] }>('select current_schema() as name');
  await owner.raw('grant usage on schema ?? to ??', [schema.rows[0]?.name ?? 'public', role]);
  for (const { name } of rows) {
    await owner.raw('revoke all on ?? from ??', [name, role]);
    if (name.startsWith('knex_migrations'))
      await owner.raw('grant select on ?? to ??', [name, role]);
    else await owner.raw(`grant ${RIGHTS[name] ?? OTHERS} on ?? to ??`, [name, role]);
  }
  await owner.raw('grant usage on all sequences in schema ?? to ??', [
    schema.rows[0]?.name ?? 'public',
    role,
  ]);
}
