import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { migrate, openDatabase, type Database } from '../src/store/database';
import { Store } from '../src/store/store';

/** A schema of the test file's own on the tests' PostgreSQL. */
export class Scratch {
  private constructor(
    readonly knex: Knex,
    readonly store: Store,
    private readonly schema: string,
    private readonly url: string,
    /** In whose name is written. */
    readonly server: string,
    private readonly isBeside = false,
  ) {}

  /** Where it is, for threads that open it themselves. */
  get database(): Database {
    return { url: this.url, schema: this.schema, server: this.server };
  }

  /** The same database as another server works with it. */
  static beside({ url, schema }: Scratch): Scratch {
    const server = randomUUID();
    const knex = openDatabase({ url, schema, server });
    return new Scratch(knex, new Store(knex), schema, url, server, true);
  }

  static async open(name: string): Promise<Scratch> {
    const url = process.env['E2E_DATABASE_URL'];
    if (!url) throw new Error('No database: run these tests with npm test -- unit');
    const schema = `t_${name}_${process.pid}`;
    const server = randomUUID();
    const knex = openDatabase({ url, schema, server });
    await knex.raw('drop schema if exists ?? cascade', schema);
    await knex.raw('create schema ??', schema);
    await migrate(knex);
    return new Scratch(knex, new Store(knex), schema, url, server);
  }

  async close(): Promise<void> {
    if (!this.isBeside) await this.knex.raw('drop schema ?? cascade', this.schema);
    await this.knex.destroy();
  }
}
