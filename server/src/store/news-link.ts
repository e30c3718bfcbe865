import { Client, escapeIdentifier } from 'pg';
import { cut, type PgConnection } from './cut';
import type { Database } from './database';

// What other servers wrote into the same database, as soon as it is written: PostgreSQL notifies (SQL commands LISTEN and
// NOTIFY), and what there is to be read stands in a log with numbers, so that a gap in the connection leaves none in the news.

export const NEWS_KINDS = [
  ...(['revision', 'evidence', 'job', 'gone', 'rehearsal'] as const),
  ...(['people', 'servers', 'silence', 'silenced'] as const),
] as const;
export type NewsKind = (typeof NEWS_KINDS)[number];

/** Something that another server wrote; one of a later version may tell what nobody here knows, which is left out. */
export interface News {
  readonly id: string;
  /** Null of what was written by no server: from a command line, or by hand. */
  readonly serverId: string | null;
  readonly jobId: string | null;
  readonly kind: NewsKind;
  readonly body: Readonly<Record<string, string | number>>;
}

export interface NewsParts {
  /** What others wrote, in its order. What is thrown here ends the connection, and is told once more after it. */
  readonly taken: (news: readonly News[]) => Promise<void>;
  /** It was away for so long that nobody knows what was told meanwhile. */
  readonly missed: () => Promise<void>;
  /** Whether the database can be reached; told each time that changes. */
  readonly reached: (isThere: boolean) => void;
}

interface Row extends Omit<News, 'id'> {
  readonly id: string | null;
  /** All that is older is there for good. */
  readonly upTo: string;
}

/** Between two attempts, in milliseconds. */
const AGAIN = 500;
/** So often it is asked whether anybody is still there, and so long an answer may take. */
const BEAT = 4_000;
const PATIENCE = 4_000;
/** So long the log is kept. */
const KEPT = 60 * 60_000;
const CLEAN_EVERY = 10 * 60_000;

/**
 * All that was written since the transactions of which it is known that they had ended, with the first that had not ended
 * when this was asked. A number alone would not do: the smaller one may be committed later.
 */
const SINCE = `
  with now as (select pg_snapshot_xmin(pg_current_snapshot()) as up_to,
    pg_snapshot_xmax(pg_current_snapshot()) as last)
  select now.up_to::text as "upTo", news.id::text as id, server_id as "serverId",
    job_id as "jobId", kind, body
  from now left join news on tx >= $1::xid8 and tx < now.last
  order by news.id`;

/** The one connection on which a server hears of the others. It comes back by itself. */
export class NewsLink {
  private client: Client | undefined;
  private position = '';
  private readAt = Date.now();
  private cleanedAt = 0;
  /** Numbers at or behind the position that were told already. */
  private known = new Set<string>();
  private parts: NewsParts | undefined;
  private isReading = false;
  private isDue = false;
  private isClosed = false;
  private wake: () => void = () => undefined;

  private constructor(private readonly database: Database) {}

  /** From this moment on nothing is missed; it is told once it is begun. @throws where the database is away */
  static async open(database: Database): Promise<NewsLink> {
    const link = new NewsLink(database);
    link.client = await link.connected();
    const { rows } = await link.client.query<{ at: string }>(
      'select pg_snapshot_xmin(pg_current_snapshot())::text as at',
    );
    link.position = rows[0]?.at ?? '0';
    return link;
  }

  begin(parts: NewsParts): void {
    this.parts = parts;
    void this.goOn();
  }

  close(): void {
    this.isClosed = true;
    this.wake();
    if (this.client) end(this.client);
  }

  private async goOn(): Promise<void> {
    while (!this.isClosed) {
      try {
        this.client ??= await this.connected();
        // First: whoever takes the news asks the database in turn.
        this.parts?.reached(true);
        await this.read(this.client);
        await this.whileThere(this.client);
      } catch {
        // What is wrong is told by being away.
      }
      if (this.client) end(this.client);
      this.client = undefined;
      if (this.isClosed) return;
      this.parts?.reached(false);
      await this.pause(AGAIN);
    }
  }

  private async connected(): Promise<Client> {
    const { url, schema = 'public', server = '' } = this.database;
    const client = new Client({
      ...{ connectionString: url, application_name: `ipsonomo news ${server}`.slice(0, 63) },
      ...{ keepAlive: true, connectionTimeoutMillis: PATIENCE },
    });
    // What becomes of the connection is told by its end.
    client.on('error', () => undefined);
    try {
      await client.connect();
      await client.query(`set search_path to ${escapeIdentifier(schema)}`);
      await client.query(`listen ${escapeIdentifier(`ipsonomo ${schema}`)}`);
    } catch (error) {
      end(client);
      throw error;
    }
    return client;
  }

  /** Reads at every notification, until the connection ends, or nobody answers on it. */
  private async whileThere(client: Client): Promise<void> {
    const ended = new Promise<void>((resolve) => client.once('end', resolve));
    const heard = () => void this.read(client).catch(() => end(client));
    client.on('notification', heard);
    // What came between the first reading and this line.
    heard();
    const beat = setInterval(() => {
      const late = setTimeout(() => end(client), PATIENCE);
      void this.beat(client)
        .catch(() => end(client))
        .finally(() => clearTimeout(late));
    }, BEAT);
    await ended.finally(() => clearInterval(beat));
  }

  private async beat(client: Client): Promise<void> {
    const isCleaning = Date.now() - this.cleanedAt > CLEAN_EVERY;
    if (!isCleaning) return void (await client.query('select 1'));
    this.cleanedAt = Date.now();
    // What a restored database brought along from another one has transactions that are yet to come here.
    await client.query(
      `delete from news where at < now() - make_interval(secs => $1)
         or tx >= pg_snapshot_xmax(pg_current_snapshot())`,
      [KEPT / 1000],
    );
  }

  /** One reading after the other; what is told during one is read by the next. */
  private async read(client: Client): Promise<void> {
    if (this.isReading) {
      this.isDue = true;
      return;
    }
    this.isReading = true;
    try {
      do {
        this.isDue = false;
        await this.readOnce(client);
      } while (this.isDue);
    } finally {
      this.isReading = false;
    }
  }

  private async readOnce(client: Client): Promise<void> {
    const isLate = Date.now() - this.readAt > KEPT;
    const { rows } = await client.query<Row>(SINCE, [this.position]);
    const found = rows.flatMap(({ id, ...row }) => (id === null ? [] : [{ ...row, id }]));
    const news = found.filter((row) => isNews(row, this.known, this.database.server));
    if (isLate) await this.parts?.missed();
    if (news.length > 0) await this.parts?.taken(news);
    this.known = new Set(found.map(({ id }) => id));
    this.position = rows[0]?.upTo ?? this.position;
    this.readAt = Date.now();
  }

  private pause(millis: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, millis);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}

const isNews = (
  { id, kind, serverId }: News,
  known: ReadonlySet<string>,
  own: string | undefined,
): boolean =>
  NEWS_KINDS.includes(kind) && !known.has(id) && (serverId === null || serverId !== own);

/** Its types say nothing of what a client is made of. */
const end = (client: Client): void => cut(client as unknown as PgConnection);
