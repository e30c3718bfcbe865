import { createServer, request as httpRequest, type IncomingMessage } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { Duplex } from 'node:stream';
import { PageRelay, type RelayedPage } from '../../src/pages/relay';

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
    response.setHeader('Set-Cookie', `sid=1; Domain=${HOST}; Path=/`);
    response.writeHead(url === '/moved' ? 303 : 200).end(`page ${url}`);
  });
});

let open: RelayedPage | undefined;
let barred = false;
const relay = new PageRelay({ page: () => open, isBarred: () => barred }, 300);
let port = 0;

const ask = (path: string, method = 'GET', body = ''): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const headers = { origin: `http://127.0.0.1:${port}`, 'content-length': body.length };
    const request = httpRequest({ port, host: '127.0.0.1', path, method, headers }, (answer) => {
      let text = '';
      answer.on('data', (data: Buffer) => (text += data.toString()));
      answer.on('end', () =>
        resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: text }),
      );
    });
    request.on('error', reject).end(body);
  });

beforeAll(async () => {
  await new Promise<void>((done) => device.listen(0, '127.0.0.1', done));
  port = await relay.listen('127.0.0.1', 0);
});

beforeEach(() => {
  seen.length = 0;
  barred = false;
  const at = (device.address() as AddressInfo).port;
  open = { host: HOST, connect: () => connect(at, '127.0.0.1') };
});

afterAll(() => {
  relay.close();
  device.close();
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

test('where it sends the browser to, and what it sets there, stays on the relay', async () => {
  const answer = await ask('/moved');
  expect(answer.status).toBe(303);
  expect(answer.headers.location).toBe(`http://127.0.0.1:${port}/network`);
  expect(answer.headers['set-cookie']).toEqual(['sid=1; Path=/']);
});

test.each([
  ['no page is open', () => (open = undefined), 503, 'No page is open'],
  ['it came in through the plant', () => (barred = true), 403, 'Not through this adapter'],
  [
    'nobody is there any more',
    () => (open = { host: HOST, connect: () => connect(1, '127.0.0.1') }),
    502,
    `It said nothing at ${HOST}`,
  ],
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
