import type { Knex } from 'knex';

/** So many rows are read at once. */
const AT_ONCE = 100;

/**
 * The rows of a query, so many at a time: whoever else wants an answer gets it between them.
 * @param trx in which nothing else is read this way meanwhile
 */
export async function* rowPages<Row>(
  query: Knex.QueryBuilder,
  trx: Knex.Transaction,
): AsyncGenerator<readonly Row[]> {
  await trx.raw('declare row_pages no scroll cursor for ?', [query]);
  try {
    for (let isMore = true; isMore;) {
      const { rows } = await trx.raw<{ rows: readonly Row[] }>(`fetch ${AT_ONCE} from row_pages`);
      if (rows.length > 0) yield rows;
      isMore = rows.length === AT_ONCE;
    }
  } finally {
    // A transaction that was given up has none any more.
    await trx.raw('close row_pages').catch(() => undefined);
  }
}
