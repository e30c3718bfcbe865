import { hostname } from 'node:os';
import { Client } from 'pg';

/** Whoever works with a database holds this together with the others; whoever brings its tables up to date holds it alone. */
const EVERYBODY = 0x4950_534f;
/** With the number of a server: it runs once. Two of one folder would end each other's runs and take each other's journals. */
const ONE_SERVER = 0x4950_5345;

/** The locks are held as long as this connection is. */
export interface Ownership {
  /** @returns undefined where nobody else works with the database, and nobody else will until `share`; otherwise who does */
  alone(): Promise<OwnedBy | undefined>;
  share(): Promise<void>;
  release(): Promise<void>;
}

/** Who has the lock: `ipsonomo 4711 on cell-laptop, /var/lib/ipsonomo`. */
export interface OwnedBy {
  readonly owner: string;
  /** The same server runs already, or the tables are being changed, or they are in use. */
  readonly why: 'runs-already' | 'being-changed' | 'in-use';
}

export interface Owner {
  readonly url: string;
  /** UUID of the server. */
  readonly server: string;
  readonly folder: string;
  /** Called where somebody else was quicker with this server's number, after the database was away. */
  readonly lost: (by: OwnedBy) => void;
}

/**
 * Takes the part of this server in a database, or tells who is in its way: the same server, run twice, or whoever brings the
 * tables up to date. The locks go with their connection, also when the server is killed; those that are lost with the
 * database are taken again as soon as it is back.
 */
export async function takeOwnership(of: Owner): Promise<Ownership | OwnedBy> {
  const first = await tryFor(PATIENCE, () => tryOnce(of));
  if ('owner' in first) return first;
  let client = first;
  let isReleased = false;
  const watch = (one: Client) => one.once('end', () => void takeAgain());
  const takeAgain = async () => {
    while (!isReleased) {
      await pause(AGAIN);
      const next = await tryOnce(of).catch(() => undefined);
      if (next === undefined) continue;
      if ('owner' in next) {
        if (next.why === 'being-changed') continue;
        return of.lost(next);
      }
      client = next;
      watch(client);
      return;
    }
  };
  watch(client);
  return {
    alone: async () => {
      const held = await tryFor(PATIENCE, () => takeAlone(client));
      return 'owner' in held ? held : undefined;
    },
    async share() {
      await client.query('select pg_advisory_unlock($1)', [EVERYBODY]);
    },
    async release() {
      isReleased = true;
      await client.end().catch(() => undefined);
    },
  };
}

const AGAIN = 500;
/** A server that was killed just now may still be let go of by the database. */
const PATIENCE = 2000;

const pause = (millis: number) => new Promise((resolve) => setTimeout(resolve, millis));

async function tryFor<T extends object>(
  millis: number,
  attempt: () => Promise<T | OwnedBy>,
): Promise<T | OwnedBy> {
  const end = Date.now() + millis;
  for (;;) {
    const one = await attempt();
    if (!('owner' in one) || Date.now() > end) return one;
    await pause(AGAIN);
  }
}

async function tryOnce({ url, server, folder }: Owner): Promise<Client | OwnedBy> {
  const name = `ipsonomo ${process.pid} on ${hostname()}, ${folder}`.slice(0, 63);
  const client = new Client({ connectionString: url, application_name: name, keepAlive: true });
  // What becomes of the connection is told by its end.
  client.on('error', () => undefined);
  await client.connect();
  const { rows } = await client.query<{ shared: boolean; own: boolean }>(
    `select pg_try_advisory_lock_shared($1) as shared,
       pg_try_advisory_lock($2, hashtext($3)) as own`,
    [EVERYBODY, ONE_SERVER, server],
  );
  if (rows[0]?.shared && rows[0].own) return client;
  const why = rows[0]?.shared ? 'runs-already' : 'being-changed';
  const owner = await holderOf(client, rows[0]?.shared ? ONE_SERVER : EVERYBODY);
  await client.end();
  return { owner, why };
}

async function takeAlone(client: Client): Promise<Client | OwnedBy> {
  const { rows } = await client.query<{ taken: boolean }>(
    'select pg_try_advisory_lock($1) as taken',
    [EVERYBODY],
  );
  return rows[0]?.taken ? client : { owner: await holderOf(client, EVERYBODY), why: 'in-use' };
}

/** Who, beside the one who asks, holds a lock: with one number it is the second half of it, with two the first. */
async function holderOf(client: Client, key: number): Promise<string> {
  const held = await client.query<{ owner: string }>(
    `select application_name as owner from pg_locks join pg_stat_activity using (pid)
     where locktype = 'advisory' and $1 in (classid, objid) and granted and pid <> pg_backend_pid()
       and database = (select oid from pg_database where datname = current_database())`,
    [key],
  );
  return held.rows[0]?.owner ?? 'another server';
}
