import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import {
  createServer as createDevice,
  request as httpRequest,
  type IncomingHttpHeaders,
  type Server,
} from 'node:http';
import { request, type RequestOptions } from 'node:https';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readCertificate, webServer, type Certificate } from '../../src/tls/encrypted';
import { indexOf } from '../../../wire/src/carriers/linux/adapters';
import { cameInThrough } from '../../../wire/src/carriers/linux/came-in';
import { addressesToOpen, listen } from '../../src/opening';
import { PageRelay } from '../../src/pages/relay';
import { ApiBench } from './api-bench';

// With a certificate everything is encrypted: the application, its cookies, and the pages of devices. openssl makes the
// certificates and tries what is not to be spoken.

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-tls-'));

function made(name: string): { readonly cert: string; readonly key: string } {
  const [cert, key] = ['crt', 'key'].map((end) => join(folder, `${name}.${end}`));
  execFileSync(
    'openssl',
    [
      ...['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes'],
      ...['-subj', '/CN=localhost', '-addext', 'subjectAltName=DNS:localhost,IP:127.0.0.1'],
      ...['-days', '2', '-out', cert ?? '', '-keyout', key ?? ''],
    ],
    { stdio: 'ignore' },
  );
  return { cert: cert ?? '', key: key ?? '' };
}

const own = made('own');
const other = made('other');
const certificate = readCertificate(own.cert, own.key) as Certificate;

let bench: ApiBench;
let web: Server;
let through: number | undefined;
const device = createDevice((_request, response) => {
  response.writeHead(302, { location: 'http://192.168.77.10/network' }).end();
});
const page = () => ({
  host: '192.168.77.10',
  connect: () => connect((device.address() as AddressInfo).port, '127.0.0.1'),
});
const relay = new PageRelay(() => ({ page, isBarred: () => false }), {
  host: '127.0.0.1',
  port: 0,
  certificate,
});

beforeAll(async () => {
  bench = await ApiBench.open('encrypted');
  web = webServer(certificate, {}, (asked, response) => {
    through = cameInThrough(asked.socket);
    bench.running.app(asked as never, response as never);
  });
  await new Promise<void>((done) => listen(web, { host: '127.0.0.1', port: 0 }, done));
  await new Promise<void>((done) => device.listen(0, '127.0.0.1', done));
});
afterAll(async () => {
  relay.close();
  device.close();
  web.close();
  web.closeAllConnections();
  await bench.close();
});

interface Answer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
}

const asked = (port: number, path: string, more: RequestOptions = {}, body = ''): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const call = request(
      { host: '127.0.0.1', port, path, ca: readFileSync(own.cert), agent: false, ...more },
      (answer) => {
        answer.resume();
        answer.on('end', () =>
          resolve({ status: answer.statusCode ?? 0, headers: answer.headers }),
        );
      },
    );
    call.on('error', reject);
    call.end(body);
  });

const portOfWeb = () => (web.address() as AddressInfo).port;

test('a browser comes in by TLS: its cookie goes nowhere else, and it is told to come by nothing else', async () => {
  const { key } = (await bench.call('post', '/keys').expect(201)).body as { key: string };
  const headers = { 'content-type': 'application/json' };
  const body = JSON.stringify({ key });
  const { status, headers: said } = await asked(
    portOfWeb(),
    '/api/door',
    { method: 'POST', headers },
    body,
  );
  expect(status).toBe(204);
  expect(String(said['set-cookie'])).toContain('; Secure');
  expect(said['strict-transport-security']).toBe('max-age=15768000');
  const cookie = String(said['set-cookie']).split(';')[0] ?? '';
  expect((await asked(portOfWeb(), '/api/jobs', { headers: { cookie } })).status).toBe(200);
  // Over plain HTTP nobody is told of TLS that is not there.
  const plain = await fetch(`${bench.webUrl}/api/door`);
  expect(plain.headers.get('strict-transport-security')).toBeNull();
});

test('the adapter that a connection came in by is known with TLS as well', async () => {
  await asked(portOfWeb(), '/api/door');
  expect(through).toBe(indexOf('lo'));
});

/** How openssl ends that speaks this version of TLS to our server. */
const spoken = (version: string): Promise<number | null> =>
  new Promise((resolve) => {
    const args = ['s_client', version, '-connect', `127.0.0.1:${portOfWeb()}`];
    spawn('openssl', args, { stdio: ['ignore', 'ignore', 'ignore'] }).on('exit', resolve);
  });

test('TLS 1.2 and 1.3 are spoken, and nothing older', async () => {
  expect(await spoken('-tls1_2')).toBe(0);
  expect(await spoken('-tls1_3')).toBe(0);
  expect(await spoken('-tls1')).not.toBe(0);
  expect(await spoken('-tls1_1')).not.toBe(0);
});

test('pages of devices are encrypted as well, and what they say of themselves leads back by TLS', async () => {
  const { port, path } = await relay.open('job');
  const first = await asked(port, path);
  expect(first.status).toBe(303);
  expect(String(first.headers['set-cookie'])).toContain('; Secure');
  const cookie = String(first.headers['set-cookie']).split(';')[0] ?? '';
  const moved = await asked(port, '/', { headers: { cookie } });
  expect([moved.status, moved.headers.location]).toEqual([
    302,
    `https://127.0.0.1:${port}/network`,
  ]);
});

test('plain HTTP to a server with TLS is not answered, and ends nothing', async () => {
  await new Promise<void>((resolve, reject) => {
    const call = httpRequest({ host: '127.0.0.1', port: portOfWeb(), path: '/' }, () =>
      reject(new Error('it was answered')),
    );
    call.on('error', () => resolve());
    call.end();
  });
  expect((await asked(portOfWeb(), '/api/door')).status).toBe(401);
});

test('what is no certificate with its key is told by its file', () => {
  const broken = join(folder, 'broken.crt');
  writeFileSync(broken, 'no certificate');
  expect(readCertificate(join(folder, 'none.crt'), own.key)).toMatch(/none\.crt cannot be used/);
  expect(readCertificate(own.cert, join(folder, 'none.key'))).toMatch(/none\.key cannot be used/);
  expect(readCertificate(broken, own.key)).toMatch(/broken\.crt with .*own\.key cannot be used/);
  expect(readCertificate(own.cert, other.key)).toMatch(/own\.crt with .*other\.key cannot be used/);
});

test('addresses that open it begin as they are spoken', () => {
  const place = { host: '127.0.0.1', port: 4780, key: 'K' };
  const [at] = addressesToOpen({ ...place, scheme: 'https' });
  expect(at).toMatch(/^https:\/\/127\.0\.0\.1:4780\/#/);
});
