// npm run dev: application and server reload when they change, the practice site is on. Ctrl-C stops all of it.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { copyFonts, copyReader, watchServer } from './lib/build.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { LOCAL, needModules, needPort, ROOT } from './lib/steps.mjs';

const PORT = process.env.PORT ?? '4780';
const APP_PORT = process.env.APP_PORT ?? '8081';

await needPort();
await needPort(APP_PORT, 'APP_PORT');
needModules();
const database = await startPostgres('pg');
const data = join(LOCAL, 'dev');
mkdirSync(data, { recursive: true });
copyFonts();
copyReader();

let server;
/** One after the other: two builds in short order must not start two servers. */
let restarting = Promise.resolve();
const builder = await watchServer(() => (restarting = restarting.then(restartServer)));
const app = startApp();

let isOver = false;
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop());
app.once('exit', () => void stop());

function restartServer() {
  return new Promise((resolve) => {
    const start = () => {
      server = spawn(process.execPath, [join(ROOT, 'server/dist/main.js')], {
        cwd: ROOT,
        stdio: ['ignore', 'inherit', 'inherit'],
        // Ctrl-C reaches this script alone; it then ends the others in order.
        detached: true,
        env: {
          ...process.env,
          HOST: '127.0.0.1',
          PORT,
          DATABASE_URL: database.url,
          ...(database.ownerUrl ? { DATABASE_OWNER_URL: database.ownerUrl } : {}),
          IPSONOMO_DEMO: '1',
          IPSONOMO_DATA: data,
          IPSONOMO_TELL_KEY: '1',
          ORIGIN: `http://127.0.0.1:${APP_PORT}`,
        },
      });
      resolve();
    };
    if (!server || server.exitCode !== null) return start();
    server.once('exit', start);
    server.kill('SIGTERM');
  });
}

function startApp() {
  const cli = join(ROOT, 'node_modules/expo/bin/cli');
  const env = { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', BROWSER: 'none' };
  // Set at all, it turns the watching off.
  delete env.CI;
  return spawn(process.execPath, [cli, 'start', '--offline', '--port', APP_PORT], {
    cwd: join(ROOT, 'app'),
    stdio: ['ignore', 'inherit', 'inherit'],
    detached: true,
    env: { ...env, IPSONOMO_API: `http://127.0.0.1:${PORT}` },
  });
}

async function stop() {
  if (isOver) return;
  isOver = true;
  await builder.dispose();
  await restarting;
  for (const child of [server, app])
    if (child?.exitCode === null) process.kill(-child.pid, 'SIGTERM');
  database.stop();
  process.exit(0);
}
