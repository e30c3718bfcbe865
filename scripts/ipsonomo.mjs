// npm run -s ipsonomo -- COMMAND …: the core on a command line.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { needModules, ROOT } from './lib/steps.mjs';

needModules();
await buildServer();
const program = join(ROOT, 'server/dist/ipsonomo.js');
// npm runs scripts in the project's folder; files are named from where the person stands.
const cwd = process.env.INIT_CWD ?? process.cwd();
const done = spawnSync(process.execPath, [program, ...process.argv.slice(2)], {
  cwd,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
