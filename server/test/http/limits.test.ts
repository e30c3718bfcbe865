import express, { type RequestHandler } from 'express';
import request from 'supertest';
import type { ErrorView } from '@ipsonomo/core/api';
import { createServer } from 'node:http';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { errorHandler } from '../../src/http/errors';
import { fewFiles, fewPlans, notTooFast, notTooMany } from '../../src/http/limits';
import { listen } from '../../src/opening';

// Whoever asks for too much is told so, and when to come back.

function appOf(limit: RequestHandler) {
  const waiting: (() => void)[] = [];
  const app = express();
  app.use(limit);
  app.get('/events', (_request, response) => void response.json('stream'));
  app.get('/quick', (_request, response) => void response.json('done'));
  app.get('/slow', (_request, response) => void waiting.push(() => response.json('done')));
  app.use(errorHandler(() => undefined));
  return { app, waiting };
}

test('faster than the limit: 429, with when to come back; the machine itself is not counted', async () => {
  const { app } = appOf(notTooFast(5));
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const codes: number[] = [];
  for (let i = 0; i < 7; i += 1) codes.push((await request(server).get('/quick')).status);
  expect(codes).toEqual([200, 200, 200, 200, 200, 429, 429]);
  const last = await request(server).get('/quick');
  expect(Number(last.headers['retry-after'])).toBeGreaterThan(0);
  expect((last.body as ErrorView).code).toBe('door.slow');
  server.close();

  const own = createServer(app);
  const socket = join(mkdtempSync(join(tmpdir(), 'ipsonomo-limits-')), 'sock');
  await new Promise<void>((resolve) => listen(own, socket, resolve));
  const url = `http+unix://${encodeURIComponent(socket)}`;
  for (let i = 0; i < 7; i += 1) await request(url).get('/quick').expect(200);
  own.close();
});

test.each<[string, RequestHandler, number, string]>([
  ['requests', notTooMany(3), 3, 'door.busy'],
  ['files', fewFiles(), 12, 'reading.busy'],
  ['plans', fewPlans(), 1, 'reading.busy'],
])('more %s at once than the limit: 503, and then it goes on', async (_what, limit, most, code) => {
  const { app, waiting } = appOf(limit);
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const slow = Array.from({ length: most }, () =>
    request(server)
      .get('/slow')
      .then((one) => one.status),
  );
  while (waiting.length < most) await new Promise((resolve) => setTimeout(resolve, 5));
  const refused = await request(server).get('/quick');
  expect([
    refused.status,
    (refused.body as ErrorView).code,
    refused.headers['retry-after'],
  ]).toEqual([503, code, '5']);
  waiting.forEach((go) => go());
  expect(await Promise.all(slow)).toEqual(Array.from({ length: most }, () => 200));
  await request(server).get('/quick').expect(200);
  server.close();
});

test('streams are not counted among the requests', async () => {
  const { app, waiting } = appOf(notTooMany(1));
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const slow = request(server)
    .get('/slow')
    .then((one) => one.status);
  while (waiting.length < 1) await new Promise((resolve) => setTimeout(resolve, 5));
  await request(server).get('/events').expect(200);
  waiting.forEach((go) => go());
  await slow;
  server.close();
});
