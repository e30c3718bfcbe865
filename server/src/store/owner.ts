import { hostname } from 'node:os';
import { Client } from 'pg';

/** One server works with a database: another one would end its runs and take its journals for left over. */
const KEY = 0x4950_534f;

/** The lock is held as long as this connection is. */
export interface Ownership {
  release(): Promise<void>;
}

/** Who has the lock: `ipsonomo 4711 on cell-laptop, /var/lib/ipsonomo`. */
export interface OwnedBy {
  readonly owner: string;
}

/**
 * Takes the database for this server alone, or tells whose it is. The lock goes with its connection, also when the
 * server is killed; a lock that is lost with the database is taken again as soon as it is back.
 * @param lost called where somebody else was quicker then
 */
export async function takeOwnership(
  url: string,
  folder: string,
  lost: (by: OwnedBy) => void,
): Promise<Ownership | OwnedBy> {
  const first = await tryFor(PATIENCE, url, folder);
  if ('owner' in first) return first;
  let client = first;
  let isReleased = false;
  const watch = (one: Client) => one.once('end', () => void takeAgain());
  const takeAgain = async () => {
    while (!isReleased) {
      await new Promise((resolve) => setTimeout(resolve, AGAIN));
      const next = await tryOnce(url, folder).catch(() => undefined);
      if (next === undefined) continue;
      if ('owner' in next) return lost(next);
      client = next;
      watch(client);
      return;
    }
  };
  watch(client);
  return {
    async release() {
      isReleased = true;
      await client.end().catch(() => undefined);
    },
  };
}

const AGAIN = 500;
/** A server that was killed just now may still be let go of by the database. */
const PATIENCE = 2000;

async function tryFor(millis: number, url: string, folder: string): Promise<Client | OwnedBy> {
  const end = Date.now() + millis;
  for (;;) {
    const one = await tryOnce(url, folder);
    if (!('owner' in one) || Date.now() > end) return one;
    await new Promise((resolve) => setTimeout(resolve, AGAIN));
  }
}

async function tryOnce(url: string, folder: string): Promise<Client | OwnedBy> {
  const name = `ipsonomo ${process.pid} on ${hostname()}, ${folder}`.slice(0, 63);
  const client = new Client({ connectionString: url, application_name: name });
  // What becomes of the connection is told by its end.
  client.on('error', () => undefined);
  await client.connect();
  const { rows } = await client.query<{ taken: boolean }>(
    'select pg_try_advisory_lock($1) as taken',
    [KEY],
  );
  if (rows[0]?.taken) return client;
  const held = await client.query<{ owner: string }>(
    `select application_name as owner from pg_locks join pg_stat_activity using (pid)
     where locktype = 'advisory' and objid = $1 and granted
       and database = (select oid from pg_database where datname = current_database())`,
    [KEY],
  );
  await client.end();
  return { owner: held.rows[0]?.owner ?? 'another server' };
}
