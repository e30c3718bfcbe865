// npm test: everything a change has to pass, on a fresh machine too.
// npm test -- --coverage: tells as well what no test ever runs.
// npm test -- WORD…: only steps whose name has a word, else test files whose path has it, else tests by their title.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from './lib/postgres.mjs';
import {
  giveUp,
  LOCAL,
  mayMakeNamespaces,
  needModules,
  needPackages,
  needServers,
  say,
} from './lib/steps.mjs';
import { choose } from './lib/test/choose.mjs';
import { closing, stepLine } from './lib/test/closing.mjs';
import { beginCoverage, COVERAGE, coverageTable } from './lib/test/coverage.mjs';
import {
  childrenSeconds,
  endAll,
  machineSeconds,
  runInto,
  runSteps,
} from './lib/test/schedule.mjs';
import { STEPS } from './lib/test/steps.mjs';

const start = Date.now();
const coresBefore = machineSeconds();
const CI = process.env.CI === 'true';
const RESULTS = join(LOCAL, 'results');

const words = process.argv.slice(2).filter((word) => !word.startsWith('--'));
const isMapped = process.argv.includes('--coverage');
const hasWire = mayMakeNamespaces();
const chosen = choose(
  words,
  STEPS.map(({ name }) => name),
);
if ('unknown' in chosen)
  giveUp(`No step, test file or title of a test has "${chosen.unknown}" in it.`);

onlyOneRun();
const skips = { lines: [], skipped: 0, failed: 0 };
const steps = withNeeded().filter((step) => !isSkipped(step));
if (steps.some(({ needs }) => needs.servers)) needServers(all('servers'));
needPackages(all('packages'));
needModules();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
if (isMapped) beginCoverage();
const database = steps.some(({ needs }) => needs.database)
  ? await startPostgres('test-pg', { fresh: true, tcp: false })
  : undefined;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.once(signal, () => {
    endAll('SIGKILL');
    database?.stopNow();
    process.exit(130);
  });

let results;
try {
  const told = (step, result) => say(`${clock()} ${stepLine(step, result)}`);
  results = await runSteps(
    steps.map((step) => ({ ...step, run: () => runStep(step) })),
    told,
  );
} finally {
  database?.stopNow();
}
const processor = childrenSeconds() + (database?.processorSeconds() ?? 0);
const machine = sinceBegun();
const { text, isOk } = closing(steps, results, { seconds: elapsed(), processor, machine, skips });
if (isMapped) say(`\n${(await coverageTable()).join('\n')}`);
say(`\n${text}`);
process.exit(isOk ? 0 : 1);

// ---- what the above is made of

function elapsed() {
  return (Date.now() - start) / 1000;
}

function sinceBegun() {
  const now = machineSeconds();
  if (!now || !coresBefore) return undefined;
  return Object.fromEntries(Object.entries(now).map(([key, all]) => [key, all - coresBefore[key]]));
}

/** When in the run something ended. */
function clock() {
  const whole = Math.round(elapsed());
  return `[${String(Math.floor(whole / 60)).padStart(2)}:${String(whole % 60).padStart(2, '0')}]`;
}

/** A step that was asked for alone still needs what is built for it. */
function withNeeded() {
  const wanted = new Set(chosen.steps);
  for (const step of [...STEPS].reverse())
    if (wanted.has(step.name)) for (const name of step.after ?? []) wanted.add(name);
  return STEPS.filter(({ name }) => wanted.has(name));
}

function isSkipped({ name, needs }) {
  if (!needs.namespaces || hasWire) return false;
  const why = `${name}: they need root and network namespaces. Run npm test as root.`;
  say(`\n!!!! SKIPPED ${why} !!!!`);
  skips.lines.push(`SKIP ${why}`);
  skips.skipped += 1;
  if (CI) skips.failed += 1;
  return true;
}

function all(kind) {
  return [...new Set(steps.flatMap(({ needs }) => needs[kind] ?? []))];
}

/** @returns what its command came to, with the tests that its runner tells of */
async function runStep(step) {
  const only = chosen.only.get(step.name);
  const result = join(RESULTS, `${step.name.replace(/ /g, '-')}.json`);
  const {
    command,
    env = {},
    tests,
    byFile,
  } = step.run({ only, result, workers: workers(), isMapped });
  const log = result.replace(/json$/, 'log');
  const ended = await runInto(log, command, {
    env: {
      CI: 'true',
      E2E_DATABASE_URL: database?.socketUrl,
      IPSONOMO_RETRY: '1',
      ...(isMapped ? { IPSONOMO_COVERAGE: COVERAGE } : {}),
      ...env,
    },
    show: chosen.only.size > 0 && only !== undefined,
  });
  return { ...ended, tests: tests?.(result), byFile };
}

/** Of each of the three runners at once; two cores are busy with one of each. */
function workers() {
  return Math.max(1, Math.floor(availableParallelism() / 2));
}

/** Two runs in one folder would share database, build and results. */
function onlyOneRun() {
  mkdirSync(LOCAL, { recursive: true });
  const file = join(LOCAL, 'test.pid');
  try {
    const pid = Number(readFileSync(file, 'utf8'));
    const other = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    if (pid !== process.pid && other.includes('scripts/test.mjs'))
      giveUp(`npm test runs in this folder already (process ${pid}). Wait for it, or end it.`);
  } catch {
    // No file, or nobody of that number: the one before is over.
  }
  writeFileSync(file, String(process.pid));
  process.on('exit', () => rmSync(file, { force: true }));
}
