// npm run demo: everything from a fresh machine to an address to open. Ctrl-C stops all of it.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { letIn } from './lib/let-in.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { giveUp, LOCAL, needModules, needPort, ROOT, say, stay } from './lib/steps.mjs';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  giveUp(`Ipsonomo needs Node 20.19 or newer; this is ${process.versions.node}.`);

const fresh = process.argv.includes('--fresh');
try {
  await needPort();
  needModules();
  const given = process.env.DATABASE_URL;
  if (fresh && given)
    giveUp(
      "--fresh starts the demo's own database over. With DATABASE_URL, empty that database yourself.",
    );
  if (fresh) rmSync(join(LOCAL, 'captures'), { recursive: true, force: true });
  const database = given
    ? { url: given, stop: () => undefined }
    : await startPostgres('pg', { fresh });
  await buildServer();
  await buildApp();
  const { child, ended } = stay(process.execPath, [join(ROOT, 'server/dist/main.js')], {
    DATABASE_URL: database.url,
    ...(database.ownerUrl ? { DATABASE_OWNER_URL: database.ownerUrl } : {}),
    IPSONOMO_DEMO: '1',
    IPSONOMO_DATA: LOCAL,
    ...letIn(),
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill('SIGTERM'));
  const code = await ended;
  database.stop();
  say('Ipsonomo has stopped.');
  process.exit(code ?? 0);
} catch (error) {
  if (error?.code === 'ENOSPC') giveUp('The disk is full. Make room and start again.');
  if (error?.code === 'EACCES') giveUp(`A right is missing: ${error.path}`);
  throw error;
}
