import type { Knex } from 'knex';
import type { WireElsewhere } from '@ipsonomo/core/api';
import { asking } from './asking';

export interface ServerRecord {
  readonly id: string;
  readonly name: string;
  /** Milliseconds since it was heard of last, by the database's clock: those of the machines may be days apart. */
  readonly quietFor: number;
  readonly hasEnded: boolean;
  readonly wires: readonly WireElsewhere[];
}

const COLUMNS = `id, name, wires, ended_at is not null as "hasEnded",
  (extract(epoch from now() - coalesce(ended_at, seen_at)) * 1000)::float8 as "quietFor"`;
/** Those that ended, or fell, longer ago than this are not told of any more. */
const TOLD_FOR = '30 days';

/** The servers that work with this database, and what they tell each other. */
export class ServerStore {
  constructor(private readonly knex: Knex) {}

  all(): Promise<readonly ServerRecord[]> {
    return asking(async () => {
      const { rows } = await this.knex.raw<{ rows: readonly ServerRecord[] }>(
        `select ${COLUMNS} from server
         where coalesce(ended_at, seen_at) > now() - interval '${TOLD_FOR}' order by name, id`,
      );
      return rows;
    });
  }

  /** A server begins; one that was here before keeps the name that people gave it. */
  async begin(id: string, name: string): Promise<void> {
    await asking(() =>
      this.knex.raw(
        `insert into server (id, name) values (:id, :name)
         on conflict (id) do update
         set started_at = now(), seen_at = now(), ended_at = null, wires = '[]'`,
        { id, name },
      ),
    );
  }

  async seen(id: string): Promise<void> {
    await asking(() => this.knex('server').where({ id }).update({ seen_at: this.knex.fn.now() }));
  }

  async noteWires(id: string, wires: readonly WireElsewhere[]): Promise<void> {
    await asking(() =>
      this.knex('server')
        .where({ id })
        .update({ wires: JSON.stringify(wires), seen_at: this.knex.fn.now() }),
    );
  }

  async rename(id: string, name: string): Promise<void> {
    await asking(() => this.knex('server').where({ id }).update({ name }));
  }

  async end(id: string): Promise<void> {
    await asking(() =>
      this.knex('server').where({ id }).update({ ended_at: this.knex.fn.now(), wires: '[]' }),
    );
  }

  /** Asks all servers to send nothing more. @returns the number of this news */
  silence(by: string): Promise<string> {
    return this.tell('silence', { by });
  }

  /** Says that this server sends nothing more, as it was asked to. */
  async silenced(news: string): Promise<void> {
    await this.tell('silenced', { of: news });
  }

  private tell(kind: 'silence' | 'silenced', body: object): Promise<string> {
    return asking(async () => {
      const rows = await this.knex('news')
        .insert({ kind, body: JSON.stringify(body) })
        .returning<{ id: string }[]>('id');
      return rows[0]?.id ?? '';
    });
  }
}
