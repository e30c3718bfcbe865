// npm start: for real use. Settings come from the environment; see .env.example.
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { letIn } from './lib/let-in.mjs';
import { readSettings } from './lib/own-database.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { LOCAL, needModules, needPort, note, ROOT, stay } from './lib/steps.mjs';

/** What the server ends with where something happened that nobody foresaw. */
const EX_SOFTWARE = 70;

readSettings();
await needPort();
needModules();
const given = process.env.DATABASE_URL;
const database = given ? { url: given, stop: () => undefined } : await startPostgres('pg');
await buildServer();
await buildApp();

/** Never down for long: a server that falls is started again, unless it falls again and again. */
const MOST_FALLS = 5;
const WITHIN = 60_000;
let child;
let isOver = false;
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    isOver = true;
    child?.kill('SIGTERM');
  });
const falls = [];
for (;;) {
  const server = stay(process.execPath, [join(ROOT, 'server/dist/main.js')], {
    DATABASE_URL: database.url,
    ...(database.ownerUrl ? { DATABASE_OWNER_URL: database.ownerUrl } : {}),
    IPSONOMO_DATA: process.env.IPSONOMO_DATA ?? LOCAL,
    ...letIn(),
  });
  child = server.child;
  const code = await server.ended;
  const hasFallen = !isOver && (code === null || code === EX_SOFTWARE);
  falls.push(Date.now());
  const lately = falls.filter((at) => Date.now() - at < WITHIN).length;
  if (!hasFallen || lately > MOST_FALLS) {
    database.stop();
    process.exit(code ?? 1);
  }
  note('The server has fallen and is started again.');
}
