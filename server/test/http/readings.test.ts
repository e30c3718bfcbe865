import ExcelJS from 'exceljs';
import type { ListView } from '@ipsonomo/core';
import { cases } from '../../../core/test/cases';
import { Readings } from '../../src/common/readings';
import { ApiBench } from './api-bench';

// Foreign files are read one at a time, and whoever waits is told how long.

test('one at a time, in the order they came; one that fails holds up none behind it', async () => {
  const readings = new Readings();
  const told: string[] = [];
  let go: (() => void)[] = [];
  const read = (name: string) =>
    readings.take(async () => {
      told.push(name);
      await new Promise<void>((resolve) => go.push(resolve));
      if (name === 'b') throw new Error('b is broken');
    });
  const all = ['a', 'b', 'c'].map(read);
  const ends = Promise.allSettled(all.map(({ done }) => done));
  await Promise.resolve();
  expect(all.map(({ before }) => before())).toEqual([0, 1, 2]);
  expect(readings.waiting).toBe(2);
  for (const name of ['a', 'b', 'c']) {
    while (told.at(-1) !== name) await new Promise((resolve) => setImmediate(resolve));
    go.forEach((one) => one());
    go = [];
  }
  expect((await ends).map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
  expect(told).toEqual(['a', 'b', 'c']);
  expect(readings.waiting).toBe(0);
});

test('who comes when too many wait is asked to come again', () => {
  const readings = new Readings();
  const never = () => new Promise<void>(() => undefined);
  for (let i = 0; i < 25; i += 1) readings.take(never);
  expect(() => readings.take(never)).toThrow('reading.busy');
});

describe('over the API', () => {
  let bench: ApiBench;
  let watch: NodeJS.Timeout | undefined;
  beforeAll(async () => {
    bench = await ApiBench.open('readings');
  });
  afterAll(() => {
    clearInterval(watch);
    return bench.close();
  });

  /** A workbook whose one sheet unpacks to far more than it is as a file. */
  async function heavy(rows: number, columns: number): Promise<Buffer> {
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Devices');
    const row = Array.from({ length: columns }, (_, i) => `cell ${i}`);
    for (let i = 0; i < rows; i += 1) sheet.addRow(row);
    return Buffer.from(await book.xlsx.writeBuffer());
  }

  test(
    'more workbooks at once than are read: each is done or refused, and the process stays small',
    async () => {
      const file = await heavy(cases(60), 150);
      const before = process.memoryUsage().rss;
      let most = 0;
      watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
      const sent = await Promise.all(
        Array.from({ length: Math.min(12, cases(5)) }, () =>
          bench
            .call('post', `/jobs/${bench.job.id}/lists?name=list.xlsx`)
            .set('content-type', 'application/octet-stream')
            .send(file),
        ),
      );
      const ids = sent.map(({ body }) => (body as { id: string }).id);
      const seen = new Set<string>();
      const states = async () => {
        const all = await Promise.all(
          ids.map((id) => bench.call('get', `/jobs/${bench.job.id}/lists/${id}`)),
        );
        return all.map(({ status, body }) => (status === 404 ? 'gone' : (body as ListView).state));
      };
      for (;;) {
        const now = await states();
        now.forEach((state) => seen.add(state));
        if (!now.some((state) => state === 'waiting' || state === 'reading')) break;
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
      expect([...seen]).toContain('waiting');
      // The first that were read have gone for the later ones.
      expect((await states()).filter((state) => state === 'ready').length).toBeGreaterThan(0);
      const more = (most - before) / 1e6;
      console.log(`${ids.length} workbooks at once: ${more.toFixed(0)} MB more at most`);
      expect(more).toBeLessThan(800);
    },
    60_000 * cases(1),
  );
});
