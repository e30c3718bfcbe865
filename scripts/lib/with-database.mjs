// Runs a TypeScript program of the tests' with a PostgreSQL of its own and everything built.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildApp, buildServer } from './build.mjs';
import { startPostgres } from './postgres.mjs';
import { needModules, needPackages, ROOT } from './steps.mjs';

/** @param args for the program */
export async function runWithDatabase(name, file, packages, env = {}, args = []) {
  needPackages(packages);
  needModules();
  const database = await startPostgres(`${name}-pg`, { fresh: true });
  await buildServer();
  await buildApp();
  const done = spawnSync(process.execPath, ['--require', 'tsx/cjs', join(ROOT, file), ...args], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, E2E_DATABASE_URL: database.socketUrl, ...env },
  });
  database.stop();
  return done.status ?? 1;
}
