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
  ) {}

  /** Where it is, for threads that open it themselves. */
  get database(): Database {
    return { url: this.url, schema: this.schema };
  }

  static async open(name: string): Promise<Scratch> {
    const url = process.env['E2E_DATABASE_URL'];
    if (!url) throw new Error('No database: run these tests with npm test -- unit');
    const schema = `t_${name}_${process.pid}`;
    const knex = openDatabase(url, schema);
    await knex.raw('drop schema if exists ?? cascade', schema);
    await knex.raw('create schema ??', schema);
    await migrate(knex);
    return new Scratch(knex, new Store(knex), schema, url);
  }

  async close(): Promise<void> {
    await this.knex.raw('drop schema ?? cascade', this.schema);
    await this.knex.destroy();
  }
}
