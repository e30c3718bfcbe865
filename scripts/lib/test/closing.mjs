// The last lines of a run: what failed and how to run it alone, what was flaky, what took long, the count.
import { readFileSync } from 'node:fs';

const SLOWEST = 20;
/** So many tests that needed their one retry fail a run: one may be bad luck, three are not. */
export const MOST_FLAKY = 2;
const LINES_OF_LOG = 60;
const LINES_OF_WHY = 25;

const last = (text, lines) => text.trimEnd().split('\n').slice(-lines).join('\n');
const first = (text, lines) => text.trim().split('\n').slice(0, lines).join('\n');
const indent = (text) => text.replace(/^/gm, '    ');
const seconds = (value) => `${value.toFixed(1)} s`;
const quoted = (text) => `'${text.replace(/'/g, "'\\''")}'`;

export const stepLine = ({ name }, { isOk, missing, seconds: took, processor }) =>
  missing
    ? `FAIL ${name}: not run, ${missing} failed`
    : `${isOk ? 'ok  ' : 'FAIL'} ${name} (${seconds(took)}, ${seconds(processor)} of processor)`;

function failedTest({ file, title, why }) {
  const alone = `npm test -- ${title === '' || /[%$]/.test(title) ? file : quoted(title)}`;
  return [`${file}: ${title}`, indent(first(why, LINES_OF_WHY)), `  alone: ${alone}`].join('\n');
}

function failedStep({ name }, { isOk, missing, tests = [], log }) {
  if (isOk || missing) return [];
  const failed = tests.filter(({ state }) => state === 'failed');
  if (failed.length > 0) return failed.map(failedTest);
  return [
    `${name}\n${indent(last(readFileSync(log, 'utf8'), LINES_OF_LOG))}\n  alone: npm test -- '${name}'`,
  ];
}

const flakyTest = ({ file, title, why }) =>
  `  ${file}: ${title}\n${indent(first(why, 6))}\n  (write it into docs/TESTING.md, Flaky, until it is mended)`;

/** @returns {{ text: string, isOk: boolean }} */
export function closing(steps, results, { seconds: took, processor, machine, skips }) {
  const tests = results.flatMap(({ tests: all = [] }) => all);
  const count = (state) => tests.filter((one) => one.state === state).length;
  const flaky = tests.filter(({ state }) => state === 'flaky');
  const broken = results.filter(({ isOk, tests: all = [] }) => !isOk && !all.some(isFailed)).length;
  const failed = count('failed') + broken + (flaky.length > MOST_FLAKY ? 1 : 0) + skips.failed;
  const slow = slowest(results);
  const troubles = steps.flatMap((step, at) => failedStep(step, results[at]));
  const parts = [
    slow.length > 3 ? `The slowest:\n${slow.join('\n')}` : '',
    troubles.length > 0 ? `Failed:\n\n${troubles.join('\n\n')}` : '',
    flaky.length > 0 ? `Flaky, passed at a second try:\n${flaky.map(flakyTest).join('\n')}` : '',
    flaky.length > MOST_FLAKY
      ? `${flaky.length} flaky tests in one run: more than ${MOST_FLAKY} fail it.`
      : '',
    steps.map((step, at) => stepLine(step, results[at])).join('\n'),
    skips.lines.join('\n'),
    `${seconds(took)} in all, ${seconds(processor)} of processor${machineWords(machine)}`,
    `${count('passed') + flaky.length} passed, ${failed} failed, ${count('skipped') + skips.skipped} skipped`,
  ];
  return { text: parts.filter((part) => part !== '').join('\n\n'), isOk: failed === 0 };
}

const machineWords = (machine) =>
  machine === undefined
    ? ''
    : `; cores busy ${seconds(machine.busy)}, idle ${seconds(machine.idle)}, taken by others ${seconds(machine.stolen)}`;

const isFailed = ({ state }) => state === 'failed';

/** Files of unit tests as a whole, other tests one by one. */
function slowest(results) {
  const times = new Map();
  for (const { tests = [], byFile } of results)
    for (const { file, title, seconds: took } of tests) {
      const name = byFile ? file : `${file}: ${title}`;
      times.set(name, (times.get(name) ?? 0) + took);
    }
  return [...times]
    .sort(([, a], [, b]) => b - a)
    .slice(0, SLOWEST)
    .map(([name, took]) => `${seconds(took).padStart(8)}  ${name}`);
}
