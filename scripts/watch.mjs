// npm run watch: the unit tests that see a changed file, again and again. Words after -- go to Jest.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { startPostgres } from './lib/postgres.mjs';
import { needModules, ROOT } from './lib/steps.mjs';

needModules();
const database = await startPostgres('watch-pg', { fresh: true, tcp: false });
const jest = join(ROOT, 'node_modules/.bin/jest');
// Ctrl-C is Jest's to deal with; the database is stopped after it.
process.on('SIGINT', () => undefined);
const done = spawnSync(jest, ['--watch', ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, E2E_DATABASE_URL: database.socketUrl },
});
database.stopNow();
process.exit(done.status ?? 1);
