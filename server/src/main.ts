import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import { openLog } from './common/log';
import { SERVER_WORDS } from '@ipsonomo/language/terminal';
import { hastenedTime, REAL_TIME } from '@ipsonomo/threads';
import type { Express } from 'express';
import type { Knex } from 'knex';
import { compose, type Running } from './compose';
import { bothWays, type Encrypted } from './tls/both-ways';
import { readCertificate, schemeOf, webServer, type Certificate } from './tls/encrypted';
import { noteFall, takeFall } from './fallen';
import { ownServer } from './own-server';
import { addressesToOpen, invitation, readyAt, listen, LONGEST_SOCKET } from './opening';
import { seedDemo } from './demo';
import { dumpDatabase } from './backup';
import { dueMigrations, migrate, openDatabase } from './store/database';
import { limitRights } from './store/rights';
import { isAway } from './store/refusal';
import { takeOwnership, type OwnedBy, type Ownership } from './store/owner';
import { Store } from './store/store';

// The only file that reads the environment and opens a port.

const env = process.env;
const DEMO = env['IPSONOMO_DEMO'] === '1';
/** A number, or the path of a Unix socket for a proxy that stands in front. */
const PORT = env['PORT'] ?? '4780';
const IS_SOCKET = PORT.includes('/');
/** This machine alone, unless somebody lets others in. */
const HOST = env['HOST'] ?? '127.0.0.1';
/** Pages of devices have a port of their own, beside the application's. */
const PAGE_PORT = Number(env['PAGE_PORT'] ?? (IS_SOCKET ? 0 : Number(PORT) + 1));
const DATA = env['IPSONOMO_DATA'] ?? join(process.cwd(), '.local');
const DATABASE_URL = env['DATABASE_URL'];
/** How many times as fast the practice site lives, and from which moment on; the browser tests hurry it. */
const PACE = Number(env['IPSONOMO_PACE'] ?? 1);
const SINCE = Number(env['IPSONOMO_SINCE'] ?? Date.now());

/** Through this file the machine's own person comes in, who needs no key: scripts, tests, the command line. */
const SOCKET = join(DATA, 'ipsonomo.sock');
/** A role that owns the tables and may migrate them; the one of DATABASE_URL then has fewer rights. */
const OWNER_URL = env['DATABASE_OWNER_URL'];
/** Where people open it, if something stands in front: `http://cell.local:8080`. */
const ORIGIN = env['ORIGIN'];
/** A certificate and its key, for TLS. */
const TLS = { cert: env['TLS_CERT'], key: env['TLS_KEY'] };
/** Beside the port that is not encrypted, one that is, behind the ten of pages; with a certificate of an authority of its own. */
const HTTPS_PORT = env['HTTPS_PORT'] ?? (IS_SOCKET ? 'off' : String(Number(PORT) + 11));
/** Who opens it on this machine alone needs none. */
const IS_LOOPBACK = /^(127\.|localhost$|::1$)/.test(HOST);
/** Why the server before this one fell. */
const FALLEN = join(DATA, 'fallen.txt');
/** A key at every start, for a terminal; a log keeps no keys. */
const TELLS_KEY = env['IPSONOMO_TELL_KEY'] === '1';

/** A request is there within these, or nobody waits for it. */
const TIMES = { headersTimeout: 20_000, requestTimeout: 180_000 };
/** Two thousand streams, and what else they ask. */
const MOST_CONNECTIONS = 3_000;
const log = openLog();
const say = (line: string): void => console.log(line);

/** The exit code of what nobody foresaw (sysexits.h): whoever watches over the server starts it again. */
const EX_SOFTWARE = 70;
const PATIENCE = 1000;

/** First nothing more is sent, then the server ends; until there is a wire there is nothing to silence. */
let failSilent = async (why: string): Promise<void> => {
  log(why);
  noteFall(FALLEN, why);
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

/** Evidence that was changed by hand is named at every start; nobody waits for it. */
async function tellBroken(store: Store): Promise<void> {
  const broken = await store.evidence.audit(10).catch(() => []);
  for (const { id, jobId, kind } of broken)
    log(SERVER_WORDS.evidenceBroken({ id, kind, job: jobId }));
}

/** What TLS is spoken with; a server that was meant to encrypt never speaks without. */
function certificateGiven(): Certificate | undefined {
  if (TLS.cert === undefined && TLS.key === undefined) return undefined;
  if (TLS.cert === undefined || TLS.key === undefined) giveUp(SERVER_WORDS.tlsNeedsBoth);
  const certificate = readCertificate(TLS.cert, TLS.key);
  return typeof certificate === 'string' ? giveUp(certificate) : certificate;
}

const certificate = certificateGiven();
const HAS_AUTHORITY = !certificate && !IS_SOCKET && !IS_LOOPBACK && HTTPS_PORT !== 'off';
const SCHEME = schemeOf(certificate);

const openAt = (key?: string): readonly string[] =>
  IS_SOCKET
    ? []
    : addressesToOpen({
        ...{ host: HOST, port: Number(PORT) },
        ...(key === undefined ? {} : { key }),
        ...{ scheme: SCHEME, origin: ORIGIN },
      });

/** How the machine's own person comes in; a path that is too long for a socket is told, and is no reason to end. */
function ownSocket(app: Express): Server | undefined {
  if (Buffer.byteLength(SOCKET) > LONGEST_SOCKET) {
    log(SERVER_WORDS.socketTooLong({ path: SOCKET }));
    return undefined;
  }
  const own = createServer(app);
  own.on('error', (error) => log(`${SOCKET}: ${error.message}`));
  listen(own, SOCKET);
  return own;
}

function openWeb(running: Running): Server {
  const server = webServer(IS_SOCKET ? undefined : certificate, TIMES, running.app);
  Object.assign(server, { maxConnections: MOST_CONNECTIONS }).once('error', noPort);
  const place = IS_SOCKET ? PORT : { host: HOST, port: Number(PORT) };
  listen(server, place, () => void tellReady(running));
  return server;
}

/** A port that is taken leaves the other one. */
function openEncrypted(encrypted: Encrypted, app: Express): Server {
  const { port, fingerprint } = encrypted.view;
  const https = encrypted.server(TIMES, app);
  Object.assign(https, { maxConnections: MOST_CONNECTIONS });
  https.on('error', (error) => {
    say(SERVER_WORDS.httpsPortInUse({ port: String(port) }));
    log(error.message);
  });
  listen(https, { host: HOST, port }, () => {
    say(SERVER_WORDS.encryptedAt);
    for (const address of addressesToOpen({ host: HOST, port, scheme: 'https' }))
      say(`  ${address}`);
    say(SERVER_WORDS.authorityIs({ fingerprint }));
  });
  return https;
}

async function tellReady({ door, people }: Running): Promise<void> {
  if (IS_SOCKET) return say(SERVER_WORDS.isReadyAt({ place: PORT }));
  if (!TELLS_KEY) {
    say(SERVER_WORDS.isReadyAtWithKey({ place: `${SCHEME}://${HOST}:${PORT}` }));
    return;
  }
  try {
    if (!DEMO && !people.isNew) return say(readyAt(openAt()));
    const { key } = await door.invite({ by: 'the terminal', role: 'keep', isForMany: DEMO });
    say(await invitation(openAt(key), key, DEMO ? 'demo' : 'first'));
  } catch (error) {
    say(SERVER_WORDS.isReadyWithoutKey({ why: String(error) }));
  }
}

/** PostgreSQL: insufficient_privilege. */
const NO_PRIVILEGE = '42501';

const IN_THE_WAY = {
  'runs-already': SERVER_WORDS.databaseOwned,
  'being-changed': SERVER_WORDS.databaseChanging,
  'in-use': SERVER_WORDS.databaseInUse,
} as const;

const tellInTheWay = ({ why, owner }: OwnedBy): never => giveUp(IN_THE_WAY[why]({ owner }));

/** Migrates as the owner of the tables; the server itself then has fewer rights than that. */
async function bringUpToDate(url: string, owned: Ownership): Promise<void> {
  const owner = openDatabase({ url: OWNER_URL ?? url });
  try {
    if ((await dueMigrations(owner)).due.length > 0)
      await changeTables(owner, OWNER_URL ?? url, owned);
    if (OWNER_URL !== undefined) await limitRights(owner, new URL(url).username);
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === NO_PRIVILEGE)
      giveUp(SERVER_WORDS.mayNotChangeTables);
    throw error;
  } finally {
    await owner.destroy();
  }
}

/** With a backup before, and while nobody else works with them. */
async function changeTables(owner: Knex, url: string, owned: Ownership): Promise<void> {
  const inTheWay = await owned.alone();
  if (inTheWay) tellInTheWay(inTheWay);
  const { due, isNew } = await dueMigrations(owner);
  // Another server may have done it in between; where there is nothing there is nothing to keep.
  if (due.length > 0 && !isNew) {
    const file = join(DATA, 'backups', `before-${due[0]}-${Date.now()}.dump`);
    const why = await dumpDatabase(url, file);
    if (why !== undefined) giveUp(SERVER_WORDS.backupFailed({ due: due.join(', '), why }));
    say(SERVER_WORDS.backupKept({ due: due.join(', '), file }));
  }
  await migrate(owner);
  await owned.share();
}

/** The address to listen at cannot be had. */
const noPort = (error: NodeJS.ErrnoException): never =>
  giveUp(
    error.code === 'EADDRINUSE'
      ? SERVER_WORDS.portInUse({ port: PORT })
      : SERVER_WORDS.couldNotStart({
          place: IS_SOCKET ? PORT : `${HOST}:${PORT}`,
          why: error.message,
        }),
  );

async function start(): Promise<void> {
  if (!DATABASE_URL) giveUp(SERVER_WORDS.noDatabaseUrl);
  const own = ownServer(DATA, env['SERVER_NAME']);
  const owned = await takeOwnership({
    ...{ url: DATABASE_URL, server: own.id, folder: DATA },
    lost: ({ owner }) => void failSilent(SERVER_WORDS.databaseTaken({ owner })),
  }).catch((error: unknown) => {
    if (isAway(error)) giveUp(SERVER_WORDS.databaseSilent);
    throw error;
  });
  if ('owner' in owned) return tellInTheWay(owned);
  await bringUpToDate(DATABASE_URL, owned);
  const at = { url: DATABASE_URL, server: own.id };
  const database = openDatabase(at);
  const store = new Store(database);
  if (DEMO) await seedDemo(store);
  const encrypted = HAS_AUTHORITY
    ? await bothWays(join(DATA, 'tls'), Number(HTTPS_PORT))
    : undefined;
  const running = await compose({
    ...{ store, own, authority: encrypted },
    database: at,
    captures: join(DATA, 'captures'),
    web: join(__dirname, '../../app/dist'),
    log,
    time: PACE === 1 ? REAL_TIME : hastenedTime(PACE, SINCE),
    pages: { host: HOST, port: PAGE_PORT, certificate },
    build: createHash('sha256').update(readFileSync(__filename)).digest('hex').slice(0, 16),
    openAt,
    practiceFirst: DEMO,
  });
  void tellBroken(store);
  const fall = takeFall(FALLEN);
  if (fall !== undefined) running.wires.notice('server-fell', { why: fall });
  failSilent = async (why) => {
    log(why);
    noteFall(FALLEN, why);
    setTimeout(() => process.exit(EX_SOFTWARE), PATIENCE).unref();
    await running.wires.silence().catch(() => undefined);
    process.exit(EX_SOFTWARE);
  };

  const server = openWeb(running);
  const socket = IS_SOCKET ? undefined : ownSocket(running.app);
  const https = encrypted && openEncrypted(encrypted, running.app);
  const stop = () => {
    for (const one of [server, socket, https]) {
      one?.close();
      one?.closeAllConnections();
    }
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
  if (code === 'ENOSPC') giveUp(SERVER_WORDS.diskFull);
  if (code === 'EACCES') giveUp(SERVER_WORDS.mayNotWrite({ path: DATA }));
  throw error;
});
