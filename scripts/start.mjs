// npm start: for real use. Settings come from the environment; see .env.example.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildApp, buildServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { LOCAL, needModules, needPort, ROOT, stay } from './lib/steps.mjs';

const file = join(ROOT, '.env');
if (existsSync(file))
  for (const line of readFileSync(file, 'utf8').split('\n')) {
    const found = /^([A-Z_]+)=(.*)$/.exec(line.trim());
    if (found) process.env[found[1]] ??= found[2];
  }

await needPort();
needModules();
const given = process.env.DATABASE_URL;
const database = given ? { url: given, stop: () => undefined } : await startPostgres('pg');
await buildServer();
await buildApp();
const { child, ended } = stay(process.execPath, [join(ROOT, 'server/dist/main.js')], {
  DATABASE_URL: database.url,
  IPSONOMO_DATA: process.env.IPSONOMO_DATA ?? LOCAL,
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill('SIGTERM'));
const code = await ended;
database.stop();
process.exit(code ?? 0);
