// npm run backup [-- FOLDER]: the database and the captures into a folder, proven by restoring them. The server may run.
import { join, resolve } from 'node:path';
import { backUp, proveBackup, rowsIn } from './lib/backup.mjs';
import { ownDatabase } from './lib/own-database.mjs';
import { giveUp, LOCAL, needModules, needPackages, say } from './lib/steps.mjs';

needModules();
needPackages(['postgresql-client']);
const [given] = process.argv.slice(2);
const folder = resolve(
  process.env.INIT_CWD ?? '.',
  given ?? join(LOCAL, 'backups', new Date().toISOString().replace(/[:.]/g, '-')),
);
const database = await ownDatabase();
try {
  const manifest = await backUp(database, folder);
  say(
    `${rowsIn(manifest)} rows and ${Object.keys(manifest.captures).length} captures are in ${folder}.`,
  );
  const wrong = await proveBackup(database.adminUrl, folder, manifest).catch((error) =>
    giveUp(`It was not proven: it could not be restored beside the database (${error.message}).`),
  );
  if (wrong.length > 0) giveUp(`Restored, these tables are not the same: ${wrong.join(', ')}.`);
  say('Restored beside the database and compared: every table is the same.');
} finally {
  database.stop();
}
