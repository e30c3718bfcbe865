import { MessageChannel } from 'node:worker_threads';
import { openPracticeCarrier } from '../src/carriers/practice/practice-carrier';
import { CARRIER_LAWS, type CarrierBench } from './carrier-laws';

// The carrier of the practice site, by the laws of all carriers.

function open(): CarrierBench {
  const { port1, port2 } = new MessageChannel();
  const heard: Uint8Array[] = [];
  port2.on('message', (frame: Uint8Array) => heard.push(frame));
  return {
    source: 'practice',
    open: (events) => openPracticeCarrier(port1, 'practice', events),
    other: { heard, send: (frame) => port2.postMessage(frame) },
    close: () => port2.close(),
  };
}

test.each(CARRIER_LAWS)('$title', async ({ hold }) => {
  const bench = open();
  await hold(bench).finally(() => bench.close());
});
