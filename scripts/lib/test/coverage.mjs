// What no test ever runs: V8's coverage of unit tests, of the servers behind browser and wire tests and of the pages in
// the browser, merged line by line. A map, not a gate.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ROOMS } from '../rooms.mjs';
import { LOCAL, ROOT } from '../steps.mjs';

export const COVERAGE = join(LOCAL, 'coverage');
const MOST_NAMED = 30;

export const coverageArgs = () => [
  ...['--coverage', '--coverageProvider', 'v8', '--coverageReporters', 'json'],
  ...['--coverageDirectory', join(COVERAGE, 'unit')],
  ...ROOMS.flatMap((room) => ['--collectCoverageFrom', `${room}/src/**/*.{ts,tsx}`]),
];

export function beginCoverage() {
  rmSync(COVERAGE, { recursive: true, force: true });
  for (const folder of ['server', 'browser'])
    mkdirSync(join(COVERAGE, folder), { recursive: true });
}

const isOurs = (file) => ROOMS.some((room) => relative(ROOT, file).startsWith(`${room}/src/`));

/** The server's maps count from the script, the application's from the project. */
const withWholePaths = ({ sources, ...map }, script) => ({
  ...map,
  sourceRoot: '',
  sources: sources.map((file) =>
    file.startsWith('/') && !file.startsWith(ROOT)
      ? join(ROOT, file)
      : resolve(dirname(script), file),
  ),
});

/** The files that scripts were made from, with what of each was run; Istanbul's shape. */
async function convert(script, functions) {
  const { default: v8ToIstanbul } = await import('v8-to-istanbul');
  // Its map stands beside it; what the script itself says of it may be an address on the server.
  const read = (file) => readFileSync(file, 'utf8');
  const sources = {
    source: read(script),
    sourceMap: { sourcemap: withWholePaths(JSON.parse(read(`${script}.map`)), script) },
  };
  const converter = v8ToIstanbul(script, 0, sources, (file) => !isOurs(file));
  await converter.load();
  converter.applyCoverage(functions);
  return converter.toIstanbul();
}

/** V8's reports of a folder, { result: [{ url, functions }] } each, as one: a script is converted once. */
async function reportsIn(folder) {
  const { mergeProcessCovs } = await import('@bcoe/v8-coverage');
  let all = { result: [] };
  for (const name of existsSync(folder) ? readdirSync(folder) : []) {
    const { result } = JSON.parse(readFileSync(join(folder, name), 'utf8'));
    const own = result.filter(({ url }) => /\/server\/dist\/|\/_expo\//.test(url));
    // Each server has a port of its own, and all of them the same page.
    const same = own.map((one) => ({
      ...one,
      url: one.url.replace(/^http:\/\/[^/]+/, 'http://page'),
    }));
    all = mergeProcessCovs([all, { result: same }]);
  }
  return all.result;
}

/** Where the page's scripts are on this disk. */
const fileOfPage = (url) => join(ROOT, 'app/dist', decodeURIComponent(new URL(url).pathname));

async function mergeReports(map, reports, fileOf) {
  for (const { url, functions } of reports) {
    const file = fileOf(url);
    if (!file || !existsSync(file) || !existsSync(`${file}.map`)) continue;
    map.merge(await convert(file, functions));
  }
}

/** @returns lines that tell the figure of each room, and what is never run */
export async function coverageTable() {
  const { default: istanbul } = await import('istanbul-lib-coverage');
  const map = istanbul.createCoverageMap({});
  const unit = join(COVERAGE, 'unit/coverage-final.json');
  if (existsSync(unit)) map.merge(JSON.parse(readFileSync(unit, 'utf8')));
  const inDist = (url) => (url.includes('/server/dist/') ? fileURLToPath(url) : undefined);
  await mergeReports(map, await reportsIn(join(COVERAGE, 'server')), inDist);
  await mergeReports(map, await reportsIn(join(COVERAGE, 'browser')), fileOfPage);
  const ours = map.files().filter(isOurs);
  const found = ours.map((file) => {
    const { total, covered } = map.fileCoverageFor(file).toSummary().lines;
    return { file: relative(ROOT, file), total, covered };
  });
  const rows = ROOMS.map((room) => {
    const own = found.filter(({ file }) => file.startsWith(`${room}/`));
    const sum = (key) => own.reduce((all, one) => all + one[key], 0);
    return `  ${room.padEnd(9)} ${((100 * sum('covered')) / Math.max(1, sum('total'))).toFixed(1)} % of ${sum('total')} lines`;
  });
  const least = found
    .map(({ file, total, covered }) => ({ file, missed: total - covered, covered }))
    .filter(({ missed }) => missed > 0)
    .sort((a, b) => b.missed - a.missed);
  writeFileSync(
    join(COVERAGE, 'missed.json'),
    JSON.stringify(missedLines(map, least), undefined, 1),
  );
  return [
    'Lines that some test runs (V8, all kinds of tests merged; .local/coverage/missed.json has the others):',
    ...rows,
    ...least
      .slice(0, MOST_NAMED)
      .map(
        ({ file, missed, covered }) =>
          `  ${String(missed).padStart(5)} never run  ${file}${covered === 0 ? '  (all of it)' : ''}`,
      ),
  ];
}

/** By file the numbers of the lines that nothing runs. */
function missedLines(map, files) {
  return Object.fromEntries(
    files.map(({ file }) => [file, map.fileCoverageFor(join(ROOT, file)).getUncoveredLines()]),
  );
}
