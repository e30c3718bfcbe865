// npm run bench: the figures, medians, side by side with a reference in the same run.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { mayMakeNamespaces, needModules, needPackages, ROOT } from './lib/steps.mjs';

needPackages(['chromium', 'iproute2', 'dnsmasq-base']);
needModules();
const database = await startPostgres('bench-pg', { fresh: true });
buildServer();
buildApp();
const args = ['--require', 'tsx/cjs', join(ROOT, 'e2e/bench/main.ts')];
const done = spawnSync(process.execPath, args, {
  cwd: ROOT,
  stdio: 'inherit',
  env: {
    ...process.env,
    E2E_DATABASE_URL: database.socketUrl,
    BENCH_WIRE: mayMakeNamespaces() ? '1' : '0',
  },
});
database.stop();
process.exit(done.status ?? 1);
