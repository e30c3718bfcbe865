import type { OpenedAt } from '@ipsonomo/contract';
import { createServer, request as httpRequest, type IncomingMessage } from 'node:http';
import {
  connect,
  createServer as createTcpServer,
  type AddressInfo,
  type Server,
  type Socket,
} from 'node:net';
import { Duplex } from 'node:stream';
import fc from 'fast-check';
import { cases } from '../../../core/test/cases';
import { PageRelay } from '../../src/pages/relay';
import type { RelayedPage } from '../../src/pages/relayed-page';

// A browser, the relay, and a device's page, each a real HTTP end on loopback.

interface Answer {
  readonly status: number;
  readonly headers: IncomingMessage['headers'];
  readonly body: string;
}

const HOST = '192.168.77.10';
const seen: { method: string; url: string; headers: IncomingMessage['headers']; body: string }[] =
  [];

const device = createServer((request, response) => {
  let body = '';
  request.on('data', (data: Buffer) => (body += data.toString()));
  request.on('end', () => {
    const { method = '', url = '', headers } = request;
    seen.push({ method, url, headers, body });
    if (url === '/hangs-up') return request.socket.destroy();
    if (url === '/moved') response.setHeader('Location', `http://${HOST}/network`);
    if (url === '/away') response.setHeader('Location', 'http://172.22.40.151/');
    for (const [name, value] of BINDING) response.setHeader(name, value);
    response.setHeader('Set-Cookie', [`sid=1; Domain=${HOST}; Path=/`, 'gone=1; Max-Age=0']);
    response.writeHead(url === '/moved' || url === '/away' ? 303 : 200).end(`page ${url}`);
  });
});

/** What would hold for more than this one page of this one device. */
const BINDING = [
  ['Clear-Site-Data', '"*"'],
  ['Cache-Control', 'public, max-age=31536000'],
  ['Access-Control-Allow-Origin', '*'],
  ['Strict-Transport-Security', 'max-age=31536000'],
  ['Service-Worker-Allowed', '/'],
  ['Alt-Svc', 'h2=":1"'],
] as const;

/** A device that says these bytes, whatever it is asked. */
const saying = async (bytes: string | Buffer): Promise<Server> => {
  const server = createTcpServer((socket) => {
    socket.on('error', () => undefined);
    socket.once('data', () => socket.end(bytes));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return server;
};
const portOf = (server: { address(): unknown }) => (server.address() as AddressInfo).port;
const pageAt = (port: number): RelayedPage => ({
  host: HOST,
  connect: () => connect(port, '127.0.0.1'),
});

let open: RelayedPage | undefined;
let barred = false;
const relay = new PageRelay(
  () => ({ page: () => open, isBarred: () => barred }),
  { host: '127.0.0.1', port: 0 },
  300,
);
let at: OpenedAt;
let cookie = '';

type Headers = Record<string, string | number>;

const askAt = (
  { port }: OpenedAt,
  path: string,
  { method = 'GET', body = '', headers = {} as Headers } = {},
): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const sent = { 'content-length': Buffer.byteLength(body), ...headers };
    const request = httpRequest(
      { port, host: '127.0.0.1', path, method, headers: sent },
      (answer) => {
        let text = '';
        answer.on('data', (data: Buffer) => (text += data.toString()));
        answer.on('end', () =>
          resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: text }),
        );
        answer.on('error', reject);
      },
    );
    request.on('error', reject).end(body);
  });

/** As the browser that opened the page asks. */
const ask = (path: string, method = 'GET', body = '', headers: Headers = {}) =>
  askAt(at, path, {
    ...{ method, body },
    headers: { origin: `http://127.0.0.1:${at.port}`, cookie, ...headers },
  });

/** Opens the page and is let in, as a browser would be. */
async function letIn(): Promise<void> {
  at = await relay.open('job');
  const answer = await askAt(at, at.path);
  cookie = (answer.headers['set-cookie']?.[0] ?? '').split(';')[0] ?? '';
}

beforeAll(() => new Promise<void>((done) => device.listen(0, '127.0.0.1', done)));

beforeEach(async () => {
  seen.length = 0;
  barred = false;
  open = pageAt(portOf(device));
  await letIn();
});

afterAll(() => {
  relay.close();
  device.close();
  device.closeAllConnections();
});

test('the device sees itself asked at its own address, and its page comes back as it is', async () => {
  const answer = await ask('/network?a=b', 'POST', 'address=172.22.40.151');
  expect(answer).toMatchObject({ status: 200, body: 'page /network?a=b' });
  expect(seen).toMatchObject([
    {
      ...{ method: 'POST', url: '/network?a=b', body: 'address=172.22.40.151' },
      headers: { host: HOST, origin: `http://${HOST}` },
    },
  ]);
});

test('a browser that is sent out loses what it has open, and nobody else does; nor does another job', async () => {
  const mine = await relay.open('other job', 'mine');
  const ask = () => fetch(`http://127.0.0.1:${mine.port}${mine.path}`, { redirect: 'manual' });
  relay.closeOf('another');
  expect((await ask()).status).toBeLessThan(500);
  relay.closeOf('mine');
  await expect(ask()).rejects.toThrow();
  expect((await askAt(at, '/', { headers: { cookie } })).status).toBe(200);
});

test('where it sends the browser to stays on the relay; away from the device nobody is sent', async () => {
  const answer = await ask('/moved');
  expect(answer.status).toBe(303);
  expect(answer.headers.location).toBe(`http://127.0.0.1:${at.port}/network`);
  const away = await ask('/away');
  expect([away.status, away.headers.location]).toEqual([502, undefined]);
  expect(away.body).toContain('http://172.22.40.151/');
});

test('what it sets stays here and is told to it alone; nothing that binds more than its page is passed on', async () => {
  const { headers } = await ask('/first', 'GET', '', { authorization: 'Basic c2V0dXA6c2V0dXA=' });
  expect(headers['set-cookie']).toBeUndefined();
  expect(headers['cache-control']).toBe('no-store');
  for (const [name] of BINDING)
    if (name !== 'Cache-Control') expect(headers[name.toLowerCase()]).toBeUndefined();
  await ask('/second', 'GET', '', {
    ...{ 'x-person': 'Mara', 'x-browser': 'abcdefgh', cookie: `${cookie}; ours=secret` },
    ...{ 'x-csrf-token': '7', te: 'trailers', connection: 'keep-alive, x-csrf-token' },
  });
  const [first, second] = seen;
  expect([first?.headers.cookie, second?.headers.cookie]).toEqual([undefined, 'sid=1']);
  expect(second?.headers).toMatchObject({ 'x-csrf-token': '7' });
  for (const name of ['x-person', 'x-browser', 'te']) expect(second?.headers[name]).toBeUndefined();

  // Another opening is another device: it has no cookie of the one before, and another origin.
  const before = at;
  await letIn();
  await ask('/third');
  expect(seen.at(-1)?.headers.cookie).toBeUndefined();
  await expect(askAt(before, '/')).rejects.toThrow();
});

test.each([
  ['without a key', '/', {}],
  ['with a wrong one', '/?ipsonomo-key=AAAA', {}],
  ['with the cookie of another opening', '/', { cookie: 'ipsonomo-page-1=x' }],
  ['from a name that was made to lead here', '/', { host: 'evil.example' }],
])('%s nobody sees it', async (_what, path, headers) => {
  const answer = await askAt(at, path, { headers: headers as Headers });
  expect([answer.status, seen]).toEqual([403, []]);
});

test.each([
  ['no page is open', () => (open = undefined), 503, 'No page is open'],
  ['it came in through the plant', () => (barred = true), 403, 'Not through this adapter'],
  ['nobody is there any more', () => (open = pageAt(1)), 502, `It said nothing at ${HOST}`],
])('%s: that is told', async (_what, set, status, words) => {
  set();
  const answer = await ask('/');
  expect(answer.status).toBe(status);
  expect(answer.body).toContain(words);
});

test('a device that hangs up in the middle is one that does not answer', async () => {
  expect((await ask('/hangs-up')).status).toBe(502);
});

test('a device that takes the connection and never says a word is one that does not answer', async () => {
  open = {
    host: HOST,
    connect: () => new Duplex({ read() {}, write: (_data, _as, done) => done() }),
  };
  expect((await ask('/')).status).toBe(502);
});

test.each([
  ['a status that is none', 'HTTP/1.1 000 X\r\nContent-Length: 0\r\n\r\n'],
  ['one below a hundred', 'HTTP/1.1 099 X\r\nContent-Length: 0\r\n\r\n'],
  ['one that changes the protocol', 'HTTP/1.1 101 X\r\nUpgrade: x\r\nConnection: upgrade\r\n\r\n'],
  ['no HTTP at all', 'SSH-2.0-device\r\n'],
  ['a header without an end', `HTTP/1.1 200 OK\r\nX: ${'x'.repeat(100_000)}`],
  ['two lengths', 'HTTP/1.1 200 OK\r\nContent-Length: 1\r\nContent-Length: 2\r\n\r\nab'],
])('%s is told in a sentence, and the next answer is passed on', async (_what, bytes) => {
  const hostile = await saying(bytes);
  open = pageAt(portOf(hostile));
  const answer = await ask('/');
  expect([answer.status, answer.headers['content-type']]).toEqual([
    502,
    'text/html; charset=utf-8',
  ]);
  hostile.close();
  open = pageAt(portOf(device));
  expect((await ask('/')).status).toBe(200);
});

/** What the relay says to these bytes of a browser. */
const raw = (text: string) =>
  new Promise<string>((resolve, reject) => {
    let said = '';
    const socket = connect(at.port, '127.0.0.1', () => socket.write(text));
    socket.on('data', (data) => (said += String(data))).on('error', reject);
    socket.on('close', () => resolve(said));
  });

const head = () => `Host: x\r\nCookie: ${cookie}\r\nConnection: close\r\n`;

test('trailers at either end bind nobody', async () => {
  const bytes = 'HTTP/1.1 200 OK\r\nTrailer: X\r\nContent-Length: 2\r\n\r\nok';
  const hostile = await saying(bytes);
  open = pageAt(portOf(hostile));
  const said = await raw(`GET / HTTP/1.1\r\n${head()}Trailer: x\r\n\r\n`);
  expect([said.slice(0, 15), said.slice(-2)]).toEqual(['HTTP/1.1 200 OK', 'ok']);
  expect(said).not.toMatch(/^trailer:/im);
  hostile.close();
});

test('requests that no device could be asked, and workers that would outlive the page', async () => {
  for (const line of ['GET //[ HTTP/1.1', 'GET /\u00e9\u00ff HTTP/1.1', 'OPTIONS * HTTP/1.1'])
    expect(await raw(`${line}\r\n${head()}\r\n`)).toMatch(/^HTTP\/1.1 (200|400|502) /);
  expect((await ask('/sw.js', 'GET', '', { 'service-worker': 'script' })).status).toBe(400);
  expect((await ask('/')).status).toBe(200);
});

test('hostile answers of a device, seeded: each is passed on or told, and nothing falls', async () => {
  const line = fc.oneof(
    fc.constantFrom('HTTP/1.1 200 OK', 'HTTP/1.0 404', 'HTTP/1.1 304 X', 'HTTP/9.9 200 OK', ''),
    fc.integer({ min: 0, max: 1200 }).map((status) => `HTTP/1.1 ${status} X`),
  );
  const header = fc.oneof(
    fc.constantFrom(...HOSTILE_HEADERS),
    fc.tuple(fc.string(), fc.string()).map(([name, value]) => `${name}: ${value}`),
  );
  const answers = fc.sample(fc.tuple(line, fc.array(header, { maxLength: 5 }), fc.string()), {
    ...{ numRuns: cases(100), seed: 7230 },
  });
  for (const [first, headers, body] of answers) {
    const hostile = await saying([first, ...headers, '', body].join('\r\n'));
    open = pageAt(portOf(hostile));
    const { status } = await ask('/').catch(() => ({ status: 502 }));
    expect([first, headers, status >= 200 && status < 1000]).toEqual([first, headers, true]);
    hostile.close();
  }
  open = pageAt(portOf(device));
  expect((await ask('/')).status).toBe(200);
});

const HOSTILE_HEADERS = [
  ...['Transfer-Encoding: chunked', 'Content-Length: -1', 'Content-Length: 99999999999'],
  ...[
    'Trailer: X',
    'Connection: upgrade',
    'Upgrade: websocket',
    'Location: http://[',
    'Refresh: 0',
  ],
  ...['Content-Encoding: gzip', 'Set-Cookie: ;;;', 'Set-Cookie: =', 'X-\u0000: 1', 'Location: //'],
];

test('a browser that does not read makes it hold little', async () => {
  const big = Buffer.alloc(64 * 1024 * 1024, 0x61);
  const head = `HTTP/1.1 200 OK\r\nContent-Length: ${big.length}\r\n\r\n`;
  let sent = 0;
  let flooded: Socket | undefined;
  const flood = createTcpServer((socket) => {
    socket.on('error', () => undefined);
    flooded = socket;
    socket.once('data', () => {
      socket.write(head);
      socket.write(big);
      const look = setInterval(() => (sent = big.length - socket.writableLength), 20);
      socket.once('close', () => clearInterval(look));
    });
  });
  await new Promise<void>((done) => flood.listen(0, '127.0.0.1', done));
  open = pageAt(portOf(flood));
  const request = httpRequest({
    ...{ port: at.port, host: '127.0.0.1', path: '/', headers: { cookie } },
  });
  const answer = await new Promise<IncomingMessage>((resolve) =>
    request.once('response', resolve).end(),
  );
  answer.pause();
  await new Promise((resolve) => setTimeout(resolve, 400));
  // What the kernel's buffers of four sockets take, and no more.
  expect(sent).toBeLessThan(big.length);
  request.destroy();
  flooded?.destroy();
  flood.close();
});
