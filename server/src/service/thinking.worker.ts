import { parentPort } from 'node:worker_threads';
import { costOf, orderRound } from '@ipsonomo/core';
import type { Question, Thought } from './thinking';

// Long computations of the server, one after the other, beside the thread that answers.

parentPort?.on('message', ({ number, calls }: Question) => {
  const order = orderRound(calls);
  const thought: Thought = { number, order: order.map(({ id }) => id), cost: costOf(order) };
  parentPort?.postMessage(thought);
});
