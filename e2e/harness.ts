import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';

const ROOT = join(__dirname, '..');

/** A server of the tests' own, with its own database and folder. */
export interface TestServer {
  readonly url: string;
  readonly folder: string;
  readonly databaseUrl: string;
  readonly output: () => string;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
  /** Starts it again on the same port, database and folder. */
  restart(): Promise<void>;
  stop(): Promise<void>;
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

function adminUrl(): string {
  const url = process.env['E2E_DATABASE_URL'];
  if (!url) throw new Error('E2E_DATABASE_URL is not set: run the tests with npm test');
  return url;
}

async function freshDatabase(name: string): Promise<string> {
  const admin = new Client({ connectionString: adminUrl() });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name}`);
  await admin.end();
  return adminUrl().replace(/\/ipsonomo$/, `/${name}`);
}

/** Waits until the condition holds; fails with its name. */
export async function until<T>(
  what: string,
  look: () => Promise<T | undefined | false>,
  seconds = 20,
): Promise<T> {
  const end = Date.now() + seconds * 1000;
  for (;;) {
    const found = await look().catch(() => undefined);
    if (found) return found;
    if (Date.now() > end) throw new Error(`waited ${seconds} s in vain: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

export async function startServer(name: string, demo: boolean): Promise<TestServer> {
  const databaseUrl = await freshDatabase(`test_${name}`);
  const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-e2e-'));
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess;
  let output = '';
  const start = async () => {
    child = spawn(process.execPath, [join(ROOT, 'server/dist/main.js')], {
      env: {
        ...process.env,
        ...{ HOST: '127.0.0.1', PORT: String(port), DATABASE_URL: databaseUrl },
        ...{ IPSONOMO_DATA: folder, IPSONOMO_DEMO: demo ? '1' : '0' },
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    child.stdout?.on('data', (data: Buffer) => (output += data.toString()));
    child.stderr?.on('data', (data: Buffer) => (output += data.toString()));
    await until(`the server of ${name} answers\n${output}`, async () => {
      const health = await fetch(`${url}/api/health`);
      return health.ok;
    });
  };
  const end = async (signal: NodeJS.Signals) => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    if (child.exitCode === null && child.kill(signal)) await ended;
  };
  await start();
  return {
    ...{ url, folder, databaseUrl },
    output: () => output,
    kill: () => end('SIGKILL'),
    restart: start,
    stop: () => end('SIGTERM'),
  };
}

/** A typed call of the server's API in a person's name. */
export async function api<T>(
  server: { readonly url: string },
  method: string,
  path: string,
  body?: unknown,
): Promise<T> {
  const response = await fetch(`${server.url}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json', 'x-person': 'test' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text}`);
  return (text === '' ? undefined : JSON.parse(text)) as T;
}
