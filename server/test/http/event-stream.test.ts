import express from 'express';
import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { EventStream } from '../../src/http/event-stream';

let events: EventStream;
let server: Server;
beforeEach(async () => {
  events = new EventStream(() => [['field', { state: 'whole' }]]);
  const app = express();
  app.get(
    '/',
    events.handler((request) => ({ browser: String(request.query['browser']) })),
  );
  server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterEach(() => {
  events.close();
  server.closeAllConnections();
  server.close();
});

/** Opens a stream, and gives what has come by it so far. */
function open(
  query = '',
  lastEventId?: string,
): Promise<{ answer: IncomingMessage; text: () => string }> {
  const { port } = server.address() as AddressInfo;
  const headers = lastEventId === undefined ? {} : { 'last-event-id': lastEventId };
  return new Promise((resolve) => {
    get({ host: '127.0.0.1', port, path: `/${query}`, headers }, (answer) => {
      let text = '';
      answer.setEncoding('utf8').on('data', (part: string) => (text += part));
      resolve({ answer, text: () => text });
    });
  });
}

const until = async (holds: () => boolean) => {
  while (!holds()) await new Promise((resolve) => setTimeout(resolve, 5));
};

test('a first stream begins with the whole state, one that comes back is told what it missed', async () => {
  const first = await open();
  await until(() => first.text().includes('hello'));
  expect(first.text()).toContain('event: field\ndata: {"state":"whole"}');
  expect(first.text()).toContain('"isWhole":true');
  events.send('job', { jobId: 'a' });
  await until(() => first.text().includes('"jobId":"a"'));
  const last = /id: (\S+)\ndata: {"jobId":"a"}/.exec(first.text())?.[1] ?? '';
  first.answer.destroy();
  events.send('job', { jobId: 'b' });
  for (const again of [await open('', last), await open(`?since=${last}`)]) {
    await until(() => again.text().includes('"jobId":"b"'));
    expect(again.text()).not.toContain('whole"}');
    expect(again.text()).toContain('"isWhole":false');
  }
});

test.each([
  ['of another server', 'f00d-3'],
  ['that is yet to come', 'own-99'],
  ['that is none', 'own-x'],
  ['with more parts', 'own-1-2'],
])('a number %s: the whole state', async (_what, number) => {
  const own = events.state().id.split('-')[0] ?? '';
  const stream = await open('', number.replace('own', own));
  await until(() => stream.text().includes('hello'));
  if (number !== 'own-1-2') expect(stream.text()).toContain('"isWhole":true');
});

test('one that was away for too long begins anew', async () => {
  const before = events.state().id;
  for (let i = 0; i < 1500; i += 1) events.send('job', { jobId: String(i) });
  const stream = await open('', before);
  await until(() => stream.text().includes('hello'));
  expect(stream.text()).toContain('"isWhole":true');
});

test('many streams are told in turn: each of everything, once and in order', async () => {
  const streams = await Promise.all(Array.from({ length: 250 }, () => open()));
  await until(() => streams.every(({ text }) => text().includes('hello')));
  events.send('job', { jobId: 'a' });
  events.send('job', { jobId: 'b' });
  // While they are told there is more.
  await new Promise((resolve) => setImmediate(resolve));
  events.send('job', { jobId: 'c' });
  await until(() => streams.every(({ text }) => text().includes('"jobId":"c"')));
  for (const { text } of streams)
    expect([...text().matchAll(/"jobId":"(.)"/g)].map(([, id]) => id)).toEqual(['a', 'b', 'c']);
});

test('one that does not read is let go, and the others hear everything', async () => {
  const deaf = await open('?browser=deaf');
  const other = await open('?browser=other');
  const closed = new Promise((resolve) => deaf.answer.once('close', resolve));
  deaf.answer.pause();
  const large = 'x'.repeat(100_000);
  for (let i = 0; i < 200; i += 1) {
    events.send('job', { jobId: large + i });
    await new Promise((resolve) => setImmediate(resolve));
  }
  await until(() => other.text().includes(`${large}199`));
  deaf.answer.resume();
  await closed;
  expect(deaf.text()).not.toContain(`${large}199`);
});

test('a browser that was sent out hears no more', async () => {
  const out = await open('?browser=a');
  const other = await open('?browser=b');
  const closed = new Promise((resolve) => out.answer.once('close', resolve));
  events.closeOf('a');
  await closed;
  events.send('job', { jobId: 'later' });
  await until(() => other.text().includes('later'));
});
