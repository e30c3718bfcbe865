// npm run soak: the long run. Every property with fifty times the cases, the kernel's sites and hostile frames among
// them; words choose as in npm test.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/steps.mjs';

const words = process.argv.slice(2);
const done = spawnSync(
  process.execPath,
  [join(ROOT, 'scripts/test.mjs'), ...(words.length > 0 ? words : ['unit tests', 'wire tests'])],
  { cwd: ROOT, stdio: 'inherit', env: { IPSONOMO_SOAK: '50', ...process.env } },
);
process.exit(done.status ?? 1);
