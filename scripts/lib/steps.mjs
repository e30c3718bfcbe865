// Plain Node only: these scripts run before any package is installed.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
export const LOCAL = join(ROOT, '.local');
export const IS_ROOT = process.getuid?.() === 0;

export const say = (line) => console.log(line);

/** What goes on beside the work: on standard error, so that output stays clean. */
export const note = (line) => console.error(line);

/** Ends the program with one clear line. */
export function giveUp(line) {
  console.error(line);
  process.exit(1);
}

/** Runs a command to its end; its output is shown only where it fails. */
export function run(command, args, { title, env = {}, cwd = ROOT, show = false } = {}) {
  const options = { cwd, env: { ...process.env, ...env }, encoding: 'utf8', maxBuffer: 1 << 28 };
  const done = spawnSync(command, args, { ...options, stdio: show ? 'inherit' : 'pipe' });
  if (done.status === 0) return done.stdout ?? '';
  const output = `${done.stdout ?? ''}${done.stderr ?? ''}`;
  const named = title ?? `${command} ${args.join(' ')}`;
  const known = knownTrouble(output);
  if (known) giveUp(`${named}: ${known}`);
  process.stderr.write(output);
  giveUp(`${named} failed${done.error ? `: ${done.error.message}` : '.'}`);
}

/** What a person can mend, in one line; undefined where the output itself has to be read. */
function knownTrouble(output) {
  if (/ENOSPC|No space left/.test(output)) return 'the disk is full. Make room and start again.';
  const denied = /^.*(EACCES|[Pp]ermission denied).*$/m.exec(output)?.[0];
  return denied && `a right is missing (${denied.trim()}).`;
}

/** Starts a command that stays; resolves with its exit code. */
export function stay(command, args, env = {}) {
  const child = spawn(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit'],
    // Ctrl-C reaches this script alone; it then ends the child in order.
    detached: true,
  });
  return { child, ended: new Promise((resolve) => child.once('exit', resolve)) };
}

export const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

/** Tests and bench of a real wire need adapters of their own. */
export function mayMakeNamespaces() {
  if (!IS_ROOT || !has('ip')) return false;
  const name = `ipso-may-${process.pid}`;
  if (spawnSync('ip', ['netns', 'add', name]).status !== 0) return false;
  return spawnSync('ip', ['netns', 'del', name]).status === 0;
}

const POLICY = '/usr/sbin/policy-rc.d';

/**
 * Servers that the tests start themselves, in namespaces of their own, installed as root: none of them begins to
 * serve or announce anything on this machine, now or after its next start.
 */
export function needServers(packages) {
  const before = packages.filter((name) => !isInstalled(name));
  const isOurs = before.length > 0 && !existsSync(POLICY);
  if (isOurs) writeFileSync(POLICY, '#!/bin/sh\nexit 101\n', { mode: 0o755 });
  try {
    needPackages(packages);
  } finally {
    if (isOurs) rmSync(POLICY);
  }
  if (has('systemctl')) for (const name of before) spawnSync('systemctl', ['disable', name]);
}

const isInstalled = (name) =>
  /^ii/.test(
    spawnSync('dpkg-query', ['-W', '-f', '${db:Status-Abbrev}', name]).stdout?.toString() ?? '',
  );

/** Debian packages, by apt as root or with sudo without a password; else one line says what to do. */
export function needPackages(packages, otherwise = '') {
  const missing = packages.filter((name) => !isInstalled(name));
  if (missing.length === 0) return;
  const sudo = IS_ROOT ? [] : ['sudo', '-n'];
  const may = has('apt-get') && (IS_ROOT || spawnSync('sudo', ['-n', 'true']).status === 0);
  if (!may) giveUp(`Please install: apt install ${missing.join(' ')}${otherwise}`);
  note(`installing ${missing.join(', ')} …`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', '-qq', ...args];
    run(command, rest, { title: `apt-get ${args[0]}`, env });
  };
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...missing);
}

/** Ends with one line where the port is taken, before anything is started for it. */
export async function needPort(wanted = process.env.PORT ?? 4780, setting = 'PORT') {
  const port = Number(wanted);
  if (!Number.isInteger(port)) return; // a Unix socket
  const host = process.env.HOST ?? '0.0.0.0';
  const taken = await new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', (error) => resolve(error.code === 'EADDRINUSE'));
    probe.listen(port, host, () => probe.close(() => resolve(false)));
  });
  if (taken)
    giveUp(
      `Port ${port} is in use. Stop what uses it, or choose another: ${setting}=${port + 1} npm run ${process.env.npm_lifecycle_event ?? 'demo'}`,
    );
}

/** npm packages, exactly as the lock file has them. */
export function needModules() {
  const marker = join(ROOT, 'node_modules/.package-lock.json');
  if (existsSync(marker) && sameLock(marker)) return;
  note('installing npm packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { title: 'npm ci' });
  run(process.execPath, ['-e', markLock], { title: 'npm ci' });
}

const stampOf = `
  const { createHash } = require('crypto'); const { readFileSync } = require('fs');
  const hash = createHash('sha1').update(readFileSync('package-lock.json')).digest('hex');`;
const markLock = `${stampOf} require('fs').writeFileSync('node_modules/.ipsonomo-lock', hash);`;

function sameLock() {
  const check = `${stampOf} process.exit(require('fs').readFileSync('node_modules/.ipsonomo-lock','utf8') === hash ? 0 : 1);`;
  return spawnSync(process.execPath, ['-e', check], { cwd: ROOT, stdio: 'ignore' }).status === 0;
}
