import { REAL_TIME } from '../src/time';
import { Thread } from '../src/thread';

const PROGRAM = { bundle: 'none', source: 'threads/test/falling.worker.ts' };

test('a thread that falls over is started again, and why is in the log', async () => {
  const logged: string[] = [];
  const messages: unknown[] = [];
  let next: () => void = () => undefined;
  const news = () => new Promise<void>((resolve) => (next = resolve));
  const events = {
    message: (message: unknown) => (messages.push(message), next()),
    restarted: () => (messages.push('restarted'), next()),
  };
  const thread = new Thread(PROGRAM, {}, REAL_TIME, events, (line) => logged.push(line));
  for (const said of ['one', 'fall', 'two']) {
    const heard = news();
    thread.post(said);
    await heard;
  }
  expect(messages).toEqual(['one back', 'restarted', 'two back']);
  expect(logged[0]).toContain('as asked');
  await thread.close();
  expect(messages).toHaveLength(3);
});
