// npm test: everything a change has to pass, on a fresh machine too.
// npm test -- NAME…: only the steps whose name has one of the words, e.g. `npm test -- unit`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import {
  LOCAL,
  mayMakeNamespaces,
  needModules,
  needPackages,
  needServers,
  ROOT,
  say,
} from './lib/steps.mjs';

const CI = process.env.CI === 'true';
const wanted = process.argv.slice(2);
const isWanted = (name) => wanted.length === 0 || wanted.some((word) => name.includes(word));
const results = [];
let passed = 0;
let failed = 0;
let skipped = 0;

/** One step: its output is shown, its result counted. `counts` reads the runner's own figures. */
function step(name, command, args, { env = {}, file, counts } = {}) {
  if (!isWanted(name)) return;
  const start = Date.now();
  say(`\n== ${name}`);
  const done = spawnSync(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: 'inherit',
  });
  const isOk = done.status === 0;
  const seconds = ((Date.now() - start) / 1000).toFixed(1);
  const found = file && existsSync(file) ? counts(JSON.parse(readFileSync(file, 'utf8'))) : NONE;
  passed += found.passed;
  skipped += found.skipped;
  // A runner that fell over without counting has failed all the same.
  failed += isOk ? found.failed : Math.max(1, found.failed);
  results.push(`${isOk ? 'ok  ' : 'FAIL'} ${name} (${seconds} s)`);
}

const NONE = { passed: 0, failed: 0, skipped: 0 };
const bin = (name) => join(ROOT, 'node_modules/.bin', name);
const result = (name) => join(LOCAL, 'results', `${name}.json`);

function jest(env) {
  const file = result('unit');
  const args = ['--json', '--outputFile', file, '--testLocationInResults'];
  const counts = (one) => ({
    passed: one.numPassedTests,
    failed: one.numFailedTests,
    skipped: one.numPendingTests,
  });
  step('unit tests', bin('jest'), args, { env: { ...env, CI: 'true' }, file, counts });
}

function playwright(name, folder, env) {
  const file = result(name.replace(' ', '-'));
  const counts = ({ stats }) => ({
    passed: stats.expected,
    failed: stats.unexpected,
    // Flaky or left out after a failure: neither passed.
    skipped: stats.skipped,
  });
  step(name, bin('playwright'), ['test', '-c', folder, '--reporter', 'list,json'], {
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_FILE: file },
    file,
    counts,
  });
}

function wireTests(env) {
  if (!isWanted('wire tests')) return;
  if (hasWire) {
    playwright('wire tests', 'e2e/wire', env);
    return;
  }
  say(
    '\n!!!! WIRE TESTS SKIPPED: they need root and network namespaces. Run npm test as root. !!!!',
  );
  results.push('SKIP wire tests: they need root and network namespaces');
  skipped += 1;
  if (CI) failed += 1;
}

/** Clients, a relay and a neighbour of their own kind, for names, switch ports and sockets. */
const OTHERS = ['isc-dhcp-client', 'isc-dhcp-relay', 'lldpd'];
/** The kernel's routing as judge: translations, captures, and pings that say where they end. */
const ROUTES = ['nftables', 'tcpdump', 'iputils-ping'];
/** Who has one address, by others' asking. */
const ASKERS = ['arping', 'arp-scan'];
const hasWire = mayMakeNamespaces();
if (hasWire && isWanted('wire tests')) needServers(OTHERS);
needPackages([
  'chromium',
  'tshark',
  'iproute2',
  'udhcpc',
  'bootpc',
  'dnsmasq-base',
  ...ROUTES,
  ...ASKERS,
]);
needModules();
const database = await startPostgres('test-pg', { fresh: true });
rmSync(join(LOCAL, 'results'), { recursive: true, force: true });
mkdirSync(join(LOCAL, 'results'), { recursive: true });
const env = { E2E_DATABASE_URL: database.socketUrl };
try {
  step('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  step('lint', bin('eslint'), ['--max-warnings', '0', '.']);
  for (const room of ['core', 'practice', 'server', 'e2e', 'app'])
    step(`types of ${room}`, bin('tsc'), ['-p', room]);
  step('import table', bin('depcruise'), [
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'err',
    'core/src',
    'practice/src',
    'server/src',
    'app/src',
  ]);
  jest(env);
  if (isWanted('build') || isWanted('browser tests') || isWanted('wire tests')) {
    say('\n== build');
    buildServer();
    buildApp();
  }
  playwright('browser tests', 'e2e', env);
  wireTests(env);
} finally {
  database.stop();
}
say(`\n${results.join('\n')}\n`);
say(`${passed} passed, ${failed} failed, ${skipped} skipped`);
process.exit(failed === 0 ? 0 : 1);
