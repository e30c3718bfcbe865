// npm run restore -- FOLDER [--replace]: puts back what npm run backup wrote. No server may run meanwhile.
import { dirname, join, resolve } from 'node:path';
import {
  backUp,
  checkedManifest,
  empty,
  isUsed,
  restoreCaptures,
  restoreInto,
  rowsIn,
  serverAt,
} from './lib/backup.mjs';
import { ownDatabase } from './lib/own-database.mjs';
import { giveUp, needModules, needPackages, say } from './lib/steps.mjs';

needModules();
needPackages(['postgresql-client']);
const [given] = process.argv.slice(2).filter((word) => !word.startsWith('--'));
if (!given) giveUp('usage: npm run restore -- FOLDER [--replace]');
const folder = resolve(process.env.INIT_CWD ?? '.', given);
const manifest = checkedManifest(folder);
const database = await ownDatabase();
try {
  const server = await serverAt(database.url);
  if (server) giveUp(`A server works with this database: ${server}. Stop it first.`);
  if (await isUsed(database.url)) {
    if (!process.argv.includes('--replace'))
      giveUp('There are jobs in this database. With --replace they are backed up and replaced.');
    const kept = join(dirname(database.captures), 'backups', `before-restore-${Date.now()}`);
    await backUp(database, kept);
    say(`What was there is kept in ${kept}.`);
  }
  await empty(database.url);
  const wrong = await restoreInto(database.url, folder, manifest);
  if (wrong.length > 0) giveUp(`Restored, these tables are not the same: ${wrong.join(', ')}.`);
  restoreCaptures(folder, database.captures);
  say(
    `${rowsIn(manifest)} rows of ${manifest.at} are restored, and compared with what was written.`,
  );
  say('The next start of the server gives its role its rights again.');
} finally {
  database.stop();
}
