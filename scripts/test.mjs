// npm test: everything a change has to pass, on a fresh machine too.
// npm test -- NAME…: only the steps whose name has one of the words, e.g. `npm test -- unit`.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { has, IS_ROOT, LOCAL, needModules, needPackages, ROOT, say } from './lib/steps.mjs';

const CI = process.env.CI === 'true';
const wanted = process.argv.slice(2);
const isWanted = (name) => wanted.length === 0 || wanted.some((word) => name.includes(word));
const results = [];
let passed = 0;
let failed = 0;
let skipped = 0;

/** One step: its output is shown, its result counted. */
function step(name, command, args, env = {}) {
  if (!isWanted(name)) return;
  const start = Date.now();
  say(`\n== ${name}`);
  const done = spawnSync(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: 'inherit',
  });
  const seconds = ((Date.now() - start) / 1000).toFixed(1);
  results.push(`${done.status === 0 ? 'ok  ' : 'FAIL'} ${name} (${seconds} s)`);
  if (done.status !== 0) failed += 1;
}

const bin = (name) => join(ROOT, 'node_modules/.bin', name);

/** Adds a runner's own counts to the sum. */
function count(file, read) {
  if (!existsSync(file)) return;
  const found = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += found.passed;
  failed += found.failed;
  skipped += found.skipped;
}

needPackages(['chromium', 'tshark', 'iproute2', 'udhcpc', 'bootpc', 'dnsmasq-base']);
needModules();
const database = await startPostgres('test-pg', { fresh: true });
rmSync(join(LOCAL, 'results'), { recursive: true, force: true });
const result = (name) => join(LOCAL, 'results', `${name}.json`);
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
  step(
    'unit tests',
    bin('jest'),
    ['--json', '--outputFile', result('unit'), '--testLocationInResults'],
    { ...env, CI: 'true' },
  );
  count(result('unit'), (one) => ({
    passed: one.numPassedTests,
    failed: one.numFailedTests,
    skipped: one.numPendingTests,
  }));
  say('\n== build');
  buildServer();
  buildApp();
  step('browser tests', bin('playwright'), ['test', '-c', 'e2e', '--reporter', 'list,json'], {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_FILE: result('browser'),
  });
  const playwright = (one) => ({
    passed: one.stats.expected,
    failed: one.stats.unexpected,
    skipped: one.stats.skipped,
  });
  count(result('browser'), playwright);
  const mayWire =
    isWanted('wire tests') &&
    IS_ROOT &&
    has('ip') &&
    spawnSync('ip', ['netns', 'add', 'ipso-may']).status === 0;
  if (mayWire) {
    spawnSync('ip', ['netns', 'del', 'ipso-may']);
    step('wire tests', bin('playwright'), ['test', '-c', 'e2e/wire', '--reporter', 'list,json'], {
      ...env,
      PLAYWRIGHT_JSON_OUTPUT_FILE: result('wire'),
    });
    count(result('wire'), playwright);
  } else if (isWanted('wire tests')) {
    say(
      '\n!!!! WIRE TESTS SKIPPED: they need root and network namespaces. Run npm test as root. !!!!',
    );
    results.push('SKIP wire tests: they need root and network namespaces');
    skipped += 1;
    if (CI) failed += 1;
  }
} finally {
  database.stop();
}
say(`\n${results.join('\n')}\n`);
say(`${passed} passed, ${failed} failed, ${skipped} skipped`);
process.exit(failed === 0 ? 0 : 1);
