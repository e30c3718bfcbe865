import { parentPort } from 'node:worker_threads';

parentPort?.on('message', (message: string) => {
  if (message === 'fall') throw new Error('as asked');
  parentPort?.postMessage(`${message} back`);
});
