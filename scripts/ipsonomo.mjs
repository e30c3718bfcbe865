// npm run -s ipsonomo -- COMMAND …: the core on a command line.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { LOCAL, needModules, ROOT } from './lib/steps.mjs';

needModules();
await buildServer();
const program = join(ROOT, 'server/dist/ipsonomo.js');
// npm runs scripts in the project's folder; files are named from where the person stands.
const cwd = process.env.INIT_CWD ?? process.cwd();
const [command] = process.argv.slice(2);
// The evidence of the demo, and of whoever started with a database of Ipsonomo's own.
const own =
  ['audit', 'fold'].includes(command) && !process.env.DATABASE_URL
    ? await startPostgres('pg')
    : undefined;
const done = spawnSync(process.execPath, [program, ...process.argv.slice(2)], {
  cwd,
  stdio: 'inherit',
  env: { IPSONOMO_DATA: LOCAL, ...process.env, ...(own ? { DATABASE_URL: own.url } : {}) },
});
own?.stop();
process.exit(done.status ?? 1);
