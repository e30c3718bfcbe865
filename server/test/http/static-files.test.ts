import express from 'express';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { staticFiles } from '../../src/http/static-files';

// A file goes out as it was packed when it was built, to whom can unpack it.

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-static-'));
const SCRIPT = 'console.log("a long script");\n'.repeat(100);
mkdirSync(join(folder, 'js'));
for (const name of ['js/entry.js', 'js/[id]-1.js']) {
  writeFileSync(join(folder, name), SCRIPT);
  writeFileSync(join(folder, `${name}.br`), brotliCompressSync(SCRIPT));
  writeFileSync(join(folder, `${name}.gz`), gzipSync(SCRIPT));
}
writeFileSync(join(folder, 'small.js'), 'x');
const app = express();
app.use('/files', staticFiles(folder, { maxAge: 1000, index: false }));
app.use((_request, response) => {
  response.status(404).send('none');
});

const ask = (path: string, encodings: string) =>
  request(app)
    .get(`/files${path}`)
    .set('accept-encoding', encodings)
    .buffer(true)
    .parse((answer, done) => {
      // As it came: the client would unpack it.
      answer.on('data', () => undefined);
      answer.on('end', () => done(null, ''));
    });

test.each([
  ['gzip, deflate, br', 'br'],
  ['gzip, deflate', 'gzip'],
  ['br;q=0, gzip', 'gzip'],
  ['identity', undefined],
  ['', undefined],
])('whoever takes "%s" gets %s', async (encodings, wanted) => {
  for (const path of ['/js/entry.js', '/js/%5Bid%5D-1.js', '/js/entry.js?v=1']) {
    const { status, headers } = await ask(path, encodings);
    expect([status, headers['content-encoding']]).toEqual([200, wanted]);
    expect(headers['content-type']).toMatch(/^(application|text)\/javascript/);
    expect(headers['vary']).toContain('Accept-Encoding');
    expect(headers['cache-control']).toContain('max-age=1');
  }
});

test('what was not packed goes out as it is, and what is not there is not there', async () => {
  expect((await ask('/small.js', 'br')).headers['content-encoding']).toBeUndefined();
  for (const path of ['/none.js', '/%ff', '/js/..%2f..%2fetc%2fpasswd', '/../static-files.test.ts'])
    expect([path, (await ask(path, 'br')).status >= 400]).toEqual([path, true]);
});

test('it unpacks to what it was', async () => {
  const answer = await request(app).get('/files/js/entry.js').set('accept-encoding', 'gzip');
  expect(answer.text).toBe(SCRIPT);
});

test('a folder that is not there is empty', async () => {
  const empty = express();
  empty.use(staticFiles(join(folder, 'none'), {}));
  expect((await request(empty).get('/entry.js')).status).toBe(404);
});
