import { knex, type Knex } from 'knex';
import { migrationSource } from './migrations';
import { isPoolTimeout, Refusal } from './refusal';

/** Where it is. */
export interface Database {
  readonly url: string;
  /** A schema of its own, for tests. */
  readonly schema?: string | undefined;
}

/**
 * Opens the database. Waits a little for a connection so that a short restart of PostgreSQL is no
 * error.
 * @param schema a schema of its own, for tests
 */
export function openDatabase(url: string, schema?: string): Knex {
  const max = schema === undefined ? 10 : 2;
  const database = knex({
    client: 'pg',
    connection: url,
    ...(schema === undefined ? {} : { searchPath: [schema] }),
    pool: { min: 0, max },
    acquireConnectionTimeout: 4000,
  });
  tellBusyApart(database, max);
  return database;
}

/** What knex has of a pool, and says of it nowhere else. */
interface Client {
  readonly pool: { numUsed(): number };
  acquireConnection(): Promise<unknown>;
}

/** Who waits in vain while every connection works is told so: a database that is away has none that does. */
function tellBusyApart({ client }: { client: Client }, max: number): void {
  const acquire = client.acquireConnection.bind(client);
  client.acquireConnection = async () => {
    try {
      return await acquire();
    } catch (error) {
      const isBusy = isPoolTimeout(error) && client.pool.numUsed() >= max;
      throw isBusy ? Refusal.of('store.busy', '') : error;
    }
  };
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
