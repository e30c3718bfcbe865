import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { hastenedTime, REAL_TIME } from './common/time';
import { compose } from './compose';
import { seedDemo } from './demo';
import { openDatabase, migrate } from './store/database';
import { isAway } from './store/refusal';
import { takeOwnership } from './store/owner';
import { Store } from './store/store';

// The only file that reads the environment and opens a port.

const env = process.env;
const DEMO = env['IPSONOMO_DEMO'] === '1';
/** A number, or the path of a Unix socket for a proxy that stands in front. */
const PORT = env['PORT'] ?? '4780';
const IS_SOCKET = PORT.includes('/');
const HOST = env['HOST'] ?? '0.0.0.0';
/** Pages of devices have a port of their own, beside the application's. */
const PAGE_PORT = Number(env['PAGE_PORT'] ?? (IS_SOCKET ? 0 : Number(PORT) + 1));
const DATA = env['IPSONOMO_DATA'] ?? join(process.cwd(), '.local');
const DATABASE_URL = env['DATABASE_URL'];
/** How many times as fast the practice site lives, and from which moment on; the browser tests hurry it. */
const PACE = Number(env['IPSONOMO_PACE'] ?? 1);
const SINCE = Number(env['IPSONOMO_SINCE'] ?? Date.now());

const say = (line: string): void => console.log(line);

/** The exit code of what nobody foresaw (sysexits.h): whoever watches over the server starts it again. */
const EX_SOFTWARE = 70;
const PATIENCE = 1000;

/** First nothing more is sent, then the server ends; until there is a wire there is nothing to silence. */
let failSilent = async (why: string): Promise<void> => {
  console.error(why);
  process.exit(EX_SOFTWARE);
};

for (const event of ['uncaughtException', 'unhandledRejection'] as const)
  process.on(event, (error: unknown) => {
    void failSilent(error instanceof Error ? (error.stack ?? error.message) : String(error));
  });

/** Ends the program with one clear line. */
function giveUp(line: string): never {
  console.error(line);
  process.exit(1);
}

function addressesToOpen(): readonly string[] {
  if (IS_SOCKET) return [PORT];
  if (HOST !== '0.0.0.0' && HOST !== '::') return [`http://${HOST}:${PORT}`];
  const own = Object.values(networkInterfaces())
    .flat()
    .filter((one) => one?.family === 'IPv4')
    .map((one) => `http://${one?.address}:${PORT}`);
  return own.length > 0 ? own : [`http://127.0.0.1:${PORT}`];
}

/** Evidence that was changed by hand is named at every start; nobody waits for it. */
async function tellBroken(store: Store): Promise<void> {
  const broken = await store.audit(10).catch(() => []);
  for (const { id, jobId, kind } of broken)
    console.error(
      `Evidence ${id} (${kind}) of job ${jobId} is not what was written: npm run ipsonomo -- audit`,
    );
}

async function start(): Promise<void> {
  if (!DATABASE_URL) giveUp('DATABASE_URL is not set. npm run demo brings its own database.');
  const database = openDatabase(DATABASE_URL);
  try {
    await migrate(database);
  } catch (error) {
    if (isAway(error))
      giveUp('The database does not answer. Is PostgreSQL running, and DATABASE_URL right?');
    throw error;
  }
  const owned = await takeOwnership(DATABASE_URL, DATA, ({ owner }) => {
    void failSilent(`Another server took the database meanwhile: ${owner}.`);
  });
  if ('owner' in owned)
    giveUp(
      `Another server works with this database: ${owned.owner}. Stop it, or give DATABASE_URL.`,
    );
  const store = new Store(database);
  if (DEMO) await seedDemo(store);
  const running = await compose({
    store,
    captures: join(DATA, 'captures'),
    web: join(__dirname, '../../app/dist'),
    log: (line) => console.error(line),
    time: PACE === 1 ? REAL_TIME : hastenedTime(PACE, SINCE),
    pages: { host: HOST, port: PAGE_PORT },
  });
  void tellBroken(store);
  failSilent = async (why) => {
    console.error(why);
    setTimeout(() => process.exit(EX_SOFTWARE), PATIENCE).unref();
    await running.field.silence().catch(() => undefined);
    process.exit(EX_SOFTWARE);
  };
  if (DEMO) await running.field.chooseWire({ kind: 'practice' });

  const server = createServer(running.app);
  server.once('error', (error: NodeJS.ErrnoException) =>
    giveUp(
      error.code === 'EADDRINUSE'
        ? `Port ${PORT} is in use. Stop what uses it, or choose another: PORT=4781 npm run demo`
        : `The web server could not start on ${IS_SOCKET ? PORT : `${HOST}:${PORT}`}: ${error.message}`,
    ),
  );
  // A socket that a killed server left behind would be in the way.
  if (IS_SOCKET) rmSync(PORT, { force: true });
  server.listen(IS_SOCKET ? { path: PORT } : { port: Number(PORT), host: HOST }, () => {
    say('Ipsonomo is ready. Open on your phone or here:');
    for (const address of addressesToOpen()) say(`  ${address}`);
  });
  const stop = () => {
    server.close();
    server.closeAllConnections();
    void running
      .close()
      .then(() => owned.release())
      .then(() => database.destroy())
      .finally(() => process.exit(0));
    setTimeout(() => process.exit(0), 3000).unref();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

start().catch((error: unknown) => {
  const code = error instanceof Error && 'code' in error ? error.code : '';
  if (code === 'ENOSPC') giveUp('The disk is full. Make room and start again.');
  if (code === 'EACCES')
    giveUp(`Ipsonomo may not write to ${DATA}. Give it the right, or set IPSONOMO_DATA.`);
  throw error;
});
