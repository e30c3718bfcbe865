import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { crewFigures } from './crew';
import { captureFigures } from './capture';
import { handOverFigures } from './hand-over';
import { scaleFigures } from './scale';
import { offlineFigures } from './offline';
import { screenFigures } from './screens';
import { median, table, type Figure } from './figures';
import { plannerFigures } from './planner';
import { CORE_DOORS } from '../../scripts/lib/core-doors.mjs';
import { sweepFigures } from './sweep';
import { waysFigures } from './ways';
import { webFigures } from './web';
import { wireFigures } from './wire';

// npm run bench: every figure of docs/BENCH.md, medians, beside a reference where one is installed.

const ROOT = join(__dirname, '../..');

/** Built as the server is: what a bundler makes of it is what runs on site. */
function runBundled<T>(file: string): T {
  const built = join(mkdtempSync(join(tmpdir(), 'ipsonomo-bench-')), 'bench.js');
  const alias = {
    ...CORE_DOORS,
    '@ipsonomo/practice': join(ROOT, 'practice/src/index.ts'),
  };
  const platform = { bundle: true, platform: 'node', target: 'node20' } as const;
  buildSync({ entryPoints: [join(__dirname, file)], outfile: built, alias, ...platform });
  return JSON.parse(execFileSync(process.execPath, [built]).toString()) as T;
}

function coreFigure(): Figure {
  const rate = median(runBundled<number[]>('core.ts'));
  return {
    what: 'core: decode, decide and encode a whole frame, on one core',
    ours: `${Math.round(rate / 1000)},000 a second`,
    reference: '',
    wanted: '≥ 100,000 a second',
    isReached: rate >= 100_000,
  };
}

interface PlanTimes {
  readonly small: { readonly subnets: number; readonly millis: number };
  readonly large: { readonly millis: number };
  readonly edit: { readonly book: number; readonly all: number };
  readonly split: number;
  readonly parse: { readonly ours: number; readonly ipaddr: number; readonly ipAddress: number };
}

function planFigures(): readonly Figure[] {
  const { small, large, edit, split, parse } = runBundled<PlanTimes>('plan.ts');
  const growth = large.millis / small.millis;
  const faster = Math.max(parse.ipaddr, parse.ipAddress);
  const millions = (rate: number) => `${(rate / 1e6).toFixed(2)} million a second`;
  return [
    {
      what: `all snags of a plan with 5,000 interfaces in ${small.subnets} subnets`,
      ours: `${small.millis.toFixed(0)} ms`,
      ...{ reference: '', wanted: '≤ 150 ms', isReached: small.millis <= 150 },
    },
    {
      what: `the same after one edit (with making the edit: ${edit.all.toFixed(1)} ms)`,
      ours: `${edit.book.toFixed(1)} ms`,
      ...{ reference: '', wanted: '≤ 5 ms', isReached: edit.book <= 5 },
    },
    {
      what: 'all snags of ten times as many interfaces',
      ours: `${growth.toFixed(1)}-fold`,
      ...{ reference: '', wanted: '≤ 12-fold', isReached: growth <= 12 },
    },
    {
      what: 'a /12 split into 1,000 needs',
      ours: `${split.toFixed(1)} ms`,
      ...{ reference: '', wanted: '≤ 50 ms', isReached: split <= 50 },
    },
    {
      what: 'addresses read from text and looked for in a network',
      ours: millions(parse.ours),
      reference: `ipaddr.js: ${millions(parse.ipaddr)}, ip-address: ${millions(parse.ipAddress)}`,
      wanted: '≥ 3 × the faster',
      isReached: parse.ours >= 3 * faster,
    },
  ];
}

interface RoundTimes {
  readonly millis: number;
  readonly searches: number;
  readonly equal: number;
  readonly cheaper: number;
}

function roundFigures(): readonly Figure[] {
  const { millis, searches, equal, cheaper } = runBundled<RoundTimes>('round.ts');
  return [
    {
      what: 'the order of a round of 300 devices',
      ours: `${millis.toFixed(0)} ms`,
      ...{ reference: '', wanted: '≤ 200 ms', isReached: millis <= 200 },
    },
    {
      what: 'its cost beside a full search, for 2 to 8 calls',
      ours: `${equal} of ${searches} equal`,
      ...{ reference: 'every order', wanted: 'equal', isReached: equal === searches },
    },
    {
      what: 'its cost for 60 calls beside 100,000 random orders',
      ours: `${cheaper} cheaper`,
      ...{ reference: '100,000 orders', wanted: 'none by 5 %', isReached: cheaper === 0 },
    },
  ];
}

interface RouteTimes {
  readonly one: number;
  readonly matrix: {
    readonly millis: number;
    readonly bytes: number;
    readonly groups: number;
    readonly pairs: number;
    readonly interfaces: number;
  };
  /** Million a second. */
  readonly lookups: { readonly ours: number; readonly scan: number };
}

function routeFigures(): readonly Figure[] {
  const { one, matrix, lookups } = runBundled<RouteTimes>('routes.ts');
  const megabytes = matrix.bytes / 1e6;
  return [
    {
      what: 'one there-and-back in a plan of 5,000 interfaces and 200 routers',
      ours: `${one.toFixed(3)} ms`,
      ...{ reference: '', wanted: '≤ 1 ms', isReached: one <= 1 },
    },
    {
      what: `who can talk with whom: ${matrix.interfaces} interfaces, 100 subnets, 40 routers (${matrix.pairs} pairs, ${matrix.groups} kinds)`,
      ours: `${matrix.millis.toFixed(0)} ms, ${megabytes.toFixed(0)} MB`,
      reference: '',
      wanted: '≤ 1 s, ≤ 200 MB',
      isReached: matrix.millis <= 1000 && megabytes <= 200,
    },
    {
      what: 'longest prefix in a table of 10,000 routes',
      ours: `${lookups.ours.toFixed(1)} million a second`,
      reference: `every line: ${lookups.scan.toFixed(3)} million a second`,
      wanted: '≥ 5 million a second',
      isReached: lookups.ours >= 5,
    },
  ];
}

/** Its response window for answers spread over 64 hundredths of a second. */
const WINDOW = 640;

function practiceFigure(): Figure {
  const millis = median(runBundled<number[]>('practice.ts'));
  return {
    what: '64 stations of a practice site over layer 2, from the search to the last one listed',
    ours: `${millis.toFixed(0)} ms`,
    reference: '',
    wanted: `its response window (${WINDOW} ms) + 200 ms`,
    isReached: millis > 0 && millis <= WINDOW + 200,
  };
}

/** Of a core, while all of a site of so many ask; beside what a quarter as many need. */
function askingFigure(): Figure {
  const seconds = 31;
  const runs = runBundled<{ count: number; millis: number }[]>('asking.ts');
  const share = (count: number) =>
    ((runs.find((run) => run.count === count)?.millis ?? NaN) / 1000 / seconds) * 100;
  return {
    what: '2,000 devices of a practice site that all ask, of one core in real time',
    ours: `${share(2000).toFixed(1)} %`,
    reference: `${share(500).toFixed(1)} % for 500`,
    ...{ wanted: '≤ 30 %', isReached: share(2000) <= 30 },
  };
}

/** What may grow a little faster than the plan: a few things are sorted. */
const MOST_EXPONENT = 1.15;

/** How many times as long four times as many devices take, as an exponent. */
function growthFigures(): readonly Figure[] {
  const all = runBundled<Record<string, Record<string, number>>>('growth.ts');
  return Object.entries(all).map(([what, millis]) => {
    const exponent = Math.log((millis['20000'] ?? NaN) / (millis['5000'] ?? NaN)) / Math.log(4);
    return {
      what: `${what}: 500, 5,000, 20,000 and 50,000 devices`,
      ours: Object.values(millis)
        .map((one) => `${one.toFixed(one < 10 ? 1 : 0)} ms`)
        .join(', '),
      reference: `n^${exponent.toFixed(2)} from 5,000 to 20,000`,
      wanted: `≤ n^${MOST_EXPONENT}`,
      isReached: exponent <= MOST_EXPONENT,
    };
  });
}

type Group = () => readonly Figure[] | Promise<readonly Figure[]>;

const ON_THE_WIRE: Readonly<Record<string, Group>> = {
  wire: wireFigures,
  ways: waysFigures,
  sweep: sweepFigures,
};
const ANYWHERE: Readonly<Record<string, Group>> = {
  core: () => [coreFigure()],
  practice: () => [practiceFigure(), askingFigure()],
  plan: planFigures,
  round: roundFigures,
  routes: routeFigures,
  web: webFigures,
  offline: offlineFigures,
  planner: plannerFigures,
  growth: growthFigures,
  scale: scaleFigures,
  crew: crewFigures,
  'hand-over': handOverFigures,
  capture: captureFigures,
  screens: screenFigures,
};

/** All groups, or those that are named: `npm run bench -- web`. */
async function main(names: readonly string[]): Promise<void> {
  const figures: Figure[] = [];
  const hasWire = process.env['BENCH_WIRE'] === '1';
  if (!hasWire)
    console.error('The wire figures are left out: they need root and network namespaces.');
  const groups = { ...(hasWire ? ON_THE_WIRE : {}), ...ANYWHERE };
  const chosen = Object.entries(groups).filter(
    ([name]) => names.length === 0 || names.includes(name),
  );
  for (const [, group] of chosen) figures.push(...(await group()));
  console.log(table(figures));
  process.exit(figures.every((one) => one.isReached) ? 0 : 1);
}

void main(process.argv.slice(2));
