import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { median, table, type Figure } from './figures';
import { webFigures } from './web';
import { wireFigures } from './wire';

// npm run bench: every figure of docs/BENCH.md, medians, beside a reference where one is installed.

const ROOT = join(__dirname, '../..');

function coreFigure(): Figure {
  // Built as the server is: what a bundler makes of it is what runs on site.
  const built = join(mkdtempSync(join(tmpdir(), 'ipsonomo-bench-')), 'core.js');
  const alias = { '@ipsonomo/core': join(ROOT, 'core/src/index.ts') };
  const platform = { bundle: true, platform: 'node', target: 'node20' } as const;
  buildSync({ entryPoints: [join(__dirname, 'core.ts')], outfile: built, alias, ...platform });
  const out = execFileSync(process.execPath, [built]);
  const rate = median(JSON.parse(out.toString()) as number[]);
  return {
    what: 'core: decode, decide and encode a whole frame, on one core',
    ours: `${Math.round(rate / 1000)},000 a second`,
    reference: '',
    wanted: '≥ 100,000 a second',
    isReached: rate >= 100_000,
  };
}

async function main(): Promise<void> {
  const figures: Figure[] = [];
  if (process.env['BENCH_WIRE'] === '1') figures.push(...(await wireFigures()));
  else console.error('The wire figures are left out: they need root and network namespaces.');
  figures.push(coreFigure(), ...(await webFigures()));
  console.log(table(figures));
  process.exit(figures.every((one) => one.isReached) ? 0 : 1);
}

void main();
