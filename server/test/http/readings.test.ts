import type { ListView } from '@ipsonomo/core/api';
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
  beforeAll(async () => {
    bench = await ApiBench.open('readings');
  });
  afterAll(() => bench.close());

  test('more lists at once than are read or kept: each waits its turn, and the first make room for the last', async () => {
    const file = Buffer.from(`device,ip\n${'Pump,10.0.0.1\n'.repeat(2000)}`);
    const sent = await Promise.all(
      Array.from({ length: 12 }, () =>
        bench
          .call('post', `/jobs/${bench.job.id}/lists?name=list.csv`)
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
    expect((await states()).sort()).toEqual([...Array(4).fill('gone'), ...Array(8).fill('ready')]);
  });
});
