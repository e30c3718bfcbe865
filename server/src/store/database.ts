import { knex, type Knex } from 'knex';
import { cut, type PgConnection } from './cut';
import { migrationSource } from './migrations';
import { isPoolTimeout, Refusal } from './refusal';

/** Where it is. */
export interface Database {
  readonly url: string;
  /** A schema of its own, for tests. */
  readonly schema?: string | undefined;
  /** The server (UUID) in whose name is written: it need not be told of that. */
  readonly server?: string | undefined;
}

/** A connection of the pool. */
interface Connection extends PgConnection {
  query(text: string, values: readonly string[], done: (error: Error | null) => void): void;
  once(event: 'end', act: () => void): void;
}

/** The connections of each database that is open, and whether somebody found that it is out of reach. */
const links = new WeakMap<object, { readonly open: Set<Connection>; isAway: boolean }>();

/**
 * Opens the database. Waits a little for a connection so that a short restart of PostgreSQL is no
 * error.
 */
export function openDatabase({ url, schema, server }: Database): Knex {
  const max = schema === undefined ? 10 : 2;
  const open = new Set<Connection>();
  const begun = (one: Connection, done: (error: Error | null, of: Connection) => void) => {
    open.add(one);
    one.once('end', () => open.delete(one));
    const told = (error: Error | null) => done(error, one);
    one.query("select set_config('ipsonomo.server', $1, false)", [server ?? ''], told);
  };
  const database = knex({
    client: 'pg',
    connection: url,
    ...(schema === undefined ? {} : { searchPath: [schema] }),
    pool: { min: 0, max, afterCreate: begun },
    acquireConnectionTimeout: 4000,
  });
  links.set(database.client as object, { open, isAway: false });
  tellBusyApart(database, max);
  return database;
}

/**
 * Ends its connections at once. Whoever waits for an answer over a network that was cut would do so for a quarter of an
 * hour.
 */
export function letGo({ client }: Knex): void {
  const open = links.get(client as object)?.open ?? [];
  for (const one of open) cut(one);
}

/** Whoever asks is refused at once, or no longer: to try a connection takes seconds, for everybody anew. */
export function setAway({ client }: Knex, isAway: boolean): void {
  const link = links.get(client as object);
  if (link) link.isAway = isAway;
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
    if (links.get(client)?.isAway) throw Refusal.of('store.away', '');
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

/** What is yet to be done to its tables, and whether it has none yet. */
export async function dueMigrations(
  database: Knex,
): Promise<{ readonly isNew: boolean; readonly due: readonly string[] }> {
  const [done, due] = (await database.migrate.list({ migrationSource })) as [
    readonly unknown[],
    readonly { readonly name: string }[],
  ];
  return { isNew: done.length === 0, due: due.map(({ name }) => name) };
}
