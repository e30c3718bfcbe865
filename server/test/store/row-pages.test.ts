import { rowPages } from '../../src/store/row-pages';
import { Scratch } from '../scratch';

let scratch: Scratch;
beforeAll(async () => void (scratch = await Scratch.open('row_pages')));
afterAll(() => scratch.close());

/** The numbers from 1 to so many, as they come. */
async function pagesTo(last: number): Promise<readonly (readonly number[])[]> {
  return scratch.knex.transaction(async (trx) => {
    const query = trx
      .select('number')
      .fromRaw('generate_series(1, 2000) as number')
      .where('number', '<=', last)
      .orderBy('number');
    const pages: (readonly number[])[] = [];
    for await (const rows of rowPages<{ readonly number: number }>(query, trx))
      pages.push(rows.map(({ number }) => number));
    return pages;
  });
}

describe('rows in pages', () => {
  test.each([
    [0, []],
    [1, [1]],
    [100, [100]],
    [101, [100, 1]],
    [200, [100, 100]],
    [234, [100, 100, 34]],
  ])('of %d', async (count, sizes) => {
    const pages = await pagesTo(count);
    expect(pages.map((page) => page.length)).toEqual(sizes);
    expect(pages.flat()).toEqual(Array.from({ length: count }, (_, at) => at + 1));
  });

  test('one after the other in a transaction, also where the first was left in the middle', async () => {
    await scratch.knex.transaction(async (trx) => {
      const query = trx.select('number').fromRaw('generate_series(1, 190) as number');
      const first: unknown[] = [];
      for await (const rows of rowPages(query, trx)) {
        first.push(...rows);
        break;
      }
      const second: unknown[] = [];
      for await (const rows of rowPages(query, trx)) second.push(...rows);
      expect([first.length, second.length]).toEqual([100, 190]);
    });
  });
});
