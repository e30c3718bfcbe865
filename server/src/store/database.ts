import { knex, type Knex } from 'knex';
import { migrationSource } from './migrations';

/**
 * Opens the database. Waits a little for a connection so that a short restart of PostgreSQL is no
 * error.
 * @param schema a schema of its own, for tests
 */
export function openDatabase(url: string, schema?: string): Knex {
  return knex({
    client: 'pg',
    connection: url,
    ...(schema === undefined ? {} : { searchPath: [schema] }),
    pool: { min: 0, max: schema === undefined ? 10 : 2 },
    acquireConnectionTimeout: 4000,
  });
}

/** Brings the tables up to date; safe to call at every start. */
export async function migrate(database: Knex): Promise<void> {
  await database.migrate.latest({ migrationSource });
}

/** What is yet to be done to a database that has something in it; empty for one that is new or up to date. */
export async function dueMigrations(database: Knex): Promise<readonly string[]> {
  const [done, due] = (await database.migrate.list({ migrationSource })) as [
    readonly unknown[],
    readonly { readonly name: string }[],
  ];
  return done.length === 0 ? [] : due.map(({ name }) => name);
}
