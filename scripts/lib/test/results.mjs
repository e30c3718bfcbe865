// What the runners of tests say, in one shape: { file, title, state, seconds, why }.
// state: passed, failed, flaky (failed, then passed at its one retry) or skipped.
import { existsSync, readFileSync } from 'node:fs';
import { relative } from 'node:path';
import { ROOT } from '../steps.mjs';

const COLOURS = new RegExp(`${String.fromCharCode(27)}\\[[0-9;]*m`, 'g');
const plain = (text) => text.replace(COLOURS, '');

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined);

const JEST_STATES = { passed: 'passed', failed: 'failed', pending: 'skipped', todo: 'skipped' };

export function jestTests(file) {
  const suites = read(file)?.testResults ?? [];
  return suites.flatMap(({ name, status, message, assertionResults }) => {
    const of = { file: relative(ROOT, name) };
    const tests = assertionResults.map((one) => ({
      ...of,
      title: one.fullName,
      state: one.status === 'passed' && one.invocations > 1 ? 'flaky' : JEST_STATES[one.status],
      seconds: (one.duration ?? 0) / 1000,
      why: plain([...(one.failureMessages ?? []), ...(one.retryReasons ?? [])].join('\n')),
    }));
    // A file that fell before its first test.
    if (status === 'failed' && !tests.some(({ state }) => state === 'failed'))
      tests.push({ ...of, title: '', state: 'failed', seconds: 0, why: plain(message) });
    return tests;
  });
}

const PLAYWRIGHT_STATES = {
  expected: 'passed',
  unexpected: 'failed',
  flaky: 'flaky',
  skipped: 'skipped',
};

export function playwrightTests(file, folder) {
  const found = read(file);
  const tests = (suite) => [
    ...(suite.suites ?? []).flatMap(tests),
    ...(suite.specs ?? []).flatMap(({ title, file: at, tests: runs }) =>
      runs.map(({ status, results }) => ({
        file: `${folder}/${at}`,
        title,
        state: PLAYWRIGHT_STATES[status],
        seconds: results.reduce((sum, { duration }) => sum + duration, 0) / 1000,
        why: plain(results.flatMap(({ errors }) => errors.map((e) => e.message ?? '')).join('\n')),
      })),
    ),
  ];
  const outside = (found?.errors ?? []).map(({ message = '' }) => ({
    ...{ file: folder, title: '', state: 'failed', seconds: 0, why: plain(message) },
  }));
  return [...(found?.suites ?? []).flatMap(tests), ...outside];
}
