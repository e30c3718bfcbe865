import type { RoundCall } from '@ipsonomo/core/round';
import { AskedThread } from '../../src/common/asked-thread';
import type { Ordered } from '../../src/service/thinking';

// A thread that answers questions: each its own, and no more at once than may wait.

const PROGRAM = { bundle: 'thinking.worker.js', source: 'service/thinking.worker.ts' };
const opened = (most: number) =>
  new AskedThread<readonly RoundCall[], Ordered>(PROGRAM, { memory: {}, most });

test('who asks while too many wait is refused; the others are answered, and then there is room again', async () => {
  const thread = opened(2);
  const [first, second] = [thread.ask([]), thread.ask([])];
  await expect(thread.ask([])).rejects.toThrow('server.busy');
  expect((await Promise.all([first, second])).map(({ order }) => order)).toEqual([[], []]);
  expect((await thread.ask([])).order).toEqual([]);
  await thread.close();
});

test('what goes wrong in it is told as that, and it goes on', async () => {
  const thread = opened(2);
  const wrong = [null] as unknown as readonly RoundCall[];
  await expect(thread.ask(wrong)).rejects.toThrow('server.thinking');
  expect((await thread.ask([])).order).toEqual([]);
  await thread.close();
});
