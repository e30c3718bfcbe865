import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { request } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrowserContext } from '@playwright/test';
import { Client } from 'pg';

const ROOT = join(__dirname, '..');
/** Where a run that maps what is never run has it written. */
export const COVERAGE = process.env['IPSONOMO_COVERAGE'];

/** A server of the tests' own, with its own database and folder. */
export interface TestServer {
  /** The Unix socket through which it is asked without a key. */
  readonly socketPath: string;
  readonly url: string;
  readonly folder: string;
  readonly databaseUrl: string;
  readonly pid: () => number;
  readonly output: () => string;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
  /** Starts it again on the same port, database and folder. */
  restart(): Promise<void>;
  stop(): Promise<void>;
}

interface Options {
  readonly demo: boolean;
  /** How many times as fast its practice site lives; 1 where nothing is said. */
  readonly pace?: number;
  /** Where its database is; the one of all tests, where nothing is said. */
  readonly cluster?: Cluster | undefined;
  /** A database that is there already, and that another server works with. */
  readonly databaseUrl?: string;
  /** Where it listens; this machine alone, where nothing is said. */
  readonly host?: string;
  /** What the others call it. */
  readonly called?: string;
  /** The network namespace it runs in; it is then reached through a Unix socket. */
  readonly namespace?: string;
  /** What stands before the command, to take rights away. */
  readonly wrap?: readonly string[];
  /** Of the engine. */
  readonly flags?: readonly string[];
}

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

export function adminUrl(): string {
  const url = process.env['E2E_DATABASE_URL'];
  if (!url) throw new Error('E2E_DATABASE_URL is not set: run the tests with npm test');
  return url;
}

/** PostgreSQL cuts names at 63 bytes: a long one keeps its beginning and is told apart by the rest of it. */
function databaseName(of: string): string {
  const name = `test_${of}`.toLowerCase();
  const mark = createHash('sha1').update(name).digest('hex').slice(0, 12);
  return name.length <= 63 ? name : `${name.slice(0, 50)}_${mark}`;
}

/** An empty database of this name among those of all tests. */
export const emptyDatabase = (name: string): Promise<string> =>
  freshDatabase(databaseName(name), adminUrl());

async function freshDatabase(name: string, cluster: string): Promise<string> {
  const admin = new Client({ connectionString: cluster });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name}`);
  await admin.end();
  return cluster.replace(/\/ipsonomo$/, `/${name}`);
}

/** A PostgreSQL of one test's own. */
export interface Cluster {
  readonly socketUrl: string;
  stopNow(): boolean;
  start(): boolean;
}

/** A PostgreSQL to be stopped and started in the middle: nobody else works with it. */
export async function ownCluster(name: string): Promise<Cluster> {
  const { startPostgres } = await import('../scripts/lib/postgres.mjs');
  return startPostgres(`own-${name}-pg`, { fresh: true, tcp: false });
}

/** Waits until the condition holds; fails with its name. */
export async function until<T>(
  what: string,
  look: () => Promise<T | undefined | false>,
  seconds = 90,
): Promise<T> {
  const end = Date.now() + seconds * 1000;
  for (;;) {
    const found = await look().catch(() => undefined);
    if (found) return found;
    if (Date.now() > end) throw new Error(`waited ${seconds} s in vain: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** A killed run leaves no server behind: the kernel ends it with whoever started it. */
const WITH_US =
  spawnSync('setpriv', ['--pdeathsig', 'KILL', 'true']).status === 0
    ? ['setpriv', '--pdeathsig', 'KILL']
    : [];

/** A refusal that an act does not name is a hole in the contract. */
const UNNAMED = 'which its contract does not name';

export async function startServer(name: string, options: Options): Promise<TestServer> {
  const { demo, pace = 1, cluster, namespace, wrap = [], flags = [] } = options;
  const databaseUrl =
    options.databaseUrl ??
    (await freshDatabase(databaseName(name), cluster?.socketUrl ?? adminUrl()));
  const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-e2e-'));
  const [port, httpsPort] = [await freePort(), await freePort()];
  const socketPath = join(folder, 'ipsonomo.sock');
  const inside = namespace === undefined ? [] : ['ip', 'netns', 'exec', namespace];
  const [command = '', ...args] = [
    ...[...inside, ...wrap, ...WITH_US, process.execPath, ...flags],
    join(ROOT, 'server/dist/main.js'),
  ];
  let child: ChildProcess;
  const begun = Date.now();
  let output = '';
  const start = async () => {
    child = spawn(command, args, {
      env: {
        ...process.env,
        ...{
          HOST: options.host ?? '127.0.0.1',
          HTTPS_PORT: String(httpsPort),
          PAGE_PORT: '0',
          PORT: namespace === undefined ? String(port) : socketPath,
        },
        // Started again, it goes on after all that it saw before.
        IPSONOMO_SINCE: String(begun + (Date.now() - begun) * pace),
        IPSONOMO_PACE: String(pace),
        ...(options.called === undefined ? {} : { SERVER_NAME: options.called }),
        ...(COVERAGE ? { NODE_V8_COVERAGE: join(COVERAGE, 'server') } : {}),
        ...{ DATABASE_URL: databaseUrl, IPSONOMO_DATA: folder, IPSONOMO_DEMO: demo ? '1' : '0' },
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    child.stdout?.on('data', (data: Buffer) => (output += data.toString()));
    child.stderr?.on('data', (data: Buffer) => (output += data.toString()));
    await until(`the server of ${name} answers`, () => api({ socketPath }, 'GET', '/health')).catch(
      (error: Error) => {
        throw new Error(`${error.message}\n${output}`);
      },
    );
  };
  const end = async (signal: NodeJS.Signals) => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    if (child.exitCode === null && child.signalCode === null && child.kill(signal)) await ended;
  };
  await start();
  return {
    ...{ socketPath, url: `http://127.0.0.1:${port}`, folder, databaseUrl },
    pid: () => child.pid ?? 0,
    output: () => output,
    kill: () => end('SIGKILL'),
    restart: start,
    stop: async () => {
      await end('SIGTERM');
      const unnamed = output.split('\n').filter((line) => line.includes(UNNAMED));
      if (unnamed.length > 0) throw new Error(unnamed.join('\n'));
    },
  };
}

/** A cookie with which a browser, or a test in its place, is let in. */
async function letIn(server: TestServer): Promise<{ name: string; value: string }> {
  const { key } = await api<{ key: string }>(server, 'POST', '/keys');
  const answer = await fetch(`${server.url}/api/door`, {
    ...{ method: 'POST', body: JSON.stringify({ key }) },
    headers: { 'content-type': 'application/json' },
  });
  const [name = '', value = ''] = (answer.headers.get('set-cookie') ?? '').split(/[=;]/);
  return { name, value };
}

/** Whoever decides something has said who they are; what a page kept since stays. */
function knownAs(person: string): void {
  const KEY = 'ipsonomo.settings';
  if (localStorage.getItem(KEY) === null) localStorage.setItem(KEY, JSON.stringify({ person }));
}

/**
 * Has a browser let in, as one that came with a key before.
 * @param person who sits before it; nobody where empty
 * @param url where it opens the server: a cookie is called by the port
 */
export async function letBrowserIn(
  context: BrowserContext,
  server: TestServer,
  person = 'Mara Quist',
  url = server.url,
): Promise<void> {
  if (person !== '') await context.addInitScript(knownAs, person);
  const { value } = await letIn(server);
  await context.addCookies([{ name: `ipsonomo-${new URL(url).port}`, value, url }]);
}

/** A refused call; the codes are in its message. */
export class CallRefused extends Error {}

/** JSON as what it says; a file as the text it is. */
function read(text: string, type = ''): unknown {
  if (text === '') return undefined;
  return type.includes('json') ? JSON.parse(text) : text;
}

interface Answer {
  readonly status: number;
  readonly type: string | undefined;
  readonly bytes: Buffer;
}

function called(
  { socketPath }: Pick<TestServer, 'socketPath'>,
  method: string,
  path: string,
  headers: Readonly<Record<string, string>>,
  sent?: string | Buffer,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    // A connection of its own: tests block for seconds, in which the server hangs up an idle one.
    const call = request(
      { socketPath, agent: false, method, path: `/api${path}`, headers },
      (response) => {
        const parts: Buffer[] = [];
        const { statusCode: status = 0, headers: said } = response;
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('error', reject);
        response.on('end', () =>
          resolve({ status, type: said['content-type'], bytes: Buffer.concat(parts) }),
        );
      },
    );
    call.on('error', reject);
    call.end(sent);
  });
}

/** A file of the server's, byte by byte. */
export async function download(
  server: Pick<TestServer, 'socketPath'>,
  path: string,
): Promise<Buffer> {
  const { status, bytes } = await called(server, 'GET', path, {});
  if (status >= 400) throw new CallRefused(`GET ${path}: ${status}`);
  return bytes;
}

/** A call of the server's API in a person's name. */
export async function api<T = unknown>(
  server: Pick<TestServer, 'socketPath'>,
  method: string,
  path: string,
  body?: unknown,
): Promise<T> {
  const isFile = Buffer.isBuffer(body);
  const sent = body === undefined || isFile ? body : JSON.stringify(body);
  const type = isFile ? 'text/plain' : 'application/json';
  const headers = { 'content-type': type, 'x-person': 'test' };
  const answer = await called(server, method, path, headers, sent);
  const text = answer.bytes.toString();
  if (answer.status >= 400) throw new CallRefused(`${method} ${path}: ${answer.status} ${text}`);
  return read(text, answer.type) as T;
}
