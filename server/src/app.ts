import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet, { strictTransportSecurity, type HelmetOptions } from 'helmet';
import { errorHandler } from './http/errors';
import type { EventStream } from './http/event-stream';
import { idOf } from './http/door';
import { browserIn, doorRoutes, keyRoutes, onlyLetIn } from './http/door-routes';
import { notThroughLiveAdapter, sameOrigin, underOwnName } from './http/guard';
import { notTooFast, notTooMany } from './http/limits';
import { handOverRoutes } from './http/hand-over-routes';
import { proofRoutes } from './http/proof-routes';
import { staticFiles } from './http/static-files';
import {
  assignRoutes,
  fieldRoutes,
  listRoutes,
  paperRoutes,
  planRoutes,
  practiceRoutes,
  type Services,
} from './http/routes';
import { Refusal } from './store/refusal';

export interface AppParts extends Services {
  /** Addresses under which this server can be opened, each bringing the key. */
  readonly openAt: (key: string) => readonly string[];
  readonly events: EventStream;
  readonly log: (line: string) => void;
  /** The exported web application; undefined serves the API alone. */
  readonly web: string | undefined;
}

/**
 * Nothing from elsewhere runs in the page, and no page of somebody else's shows it. Styles are written by React Native's
 * web target as it goes; the reader of barcodes is WebAssembly. Plain HTTP has no other origin to be kept from.
 */
const HEADERS: HelmetOptions = {
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      workerSrc: ["'self'", 'blob:'],
      connectSrc: ["'self'"],
      fontSrc: ["'self'", 'data:'],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  crossOriginOpenerPolicy: false,
  originAgentCluster: false,
  strictTransportSecurity: false, // of a connection that is encrypted alone: see below
  xFrameOptions: { action: 'deny' },
};

const YEAR = 365 * 24 * 3600 * 1000;
const HALF_A_YEAR = YEAR / 2 / 1000; // seconds

/** Who came once by TLS comes by nothing else (RFC 6797); a name alone is told so, an address of a machine cannot be. */
const transportSecurity = strictTransportSecurity({
  ...{ maxAge: HALF_A_YEAR, includeSubDomains: false },
});
const encryptedOnly: RequestHandler = (request, response, next) =>
  request.secure ? transportSecurity(request, response, next) : next();

/** The whole server as a function of its parts: nothing here reads the environment or opens a port. */
export function buildApp(parts: AppParts): Express {
  const { door, events, field, log, store, web } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.use(notThroughLiveAdapter(field));
  app.use(underOwnName);
  app.use(helmet(HEADERS));
  app.use(encryptedOnly);
  // A compressed event stream would be held back until it is long enough.
  app.use(compression({ filter: (request) => !request.path.endsWith('/events') }));
  const api = express.Router();
  api.use(notTooMany());
  api.use(notTooFast());
  api.use(sameOrigin);
  api.use(doorRoutes(door));
  api.use(onlyLetIn(door));
  api.use(keyRoutes(door, parts.openAt));
  api.use('/jobs/:job', async (request, _response, next) => {
    // A plan file is posted where a job's id would stand.
    if (request.params.job !== 'from-file') await store.job(idOf(request, 'job'));
    next();
  });
  // Before the reader of JSON: a list is taken as the bytes it is, whatever it says it is.
  api.use(listRoutes(parts));
  api.use(paperRoutes(parts));
  // A paste of some thousand lines is a few megabytes of edits.
  api.post('/jobs/:job/edits', express.json({ limit: '20mb' }));
  api.use(express.json({ limit: '1mb' }));
  api.get('/health', async (_request, response) => {
    response.json({ database: await store.isAlive() });
  });
  api.get(
    '/events',
    events.handler((request) => browserIn(door, request)),
  );
  api.get('/state', (_request, response) => {
    response.json(events.state());
  });
  const all = [planRoutes, assignRoutes, proofRoutes];
  all.push(fieldRoutes, handOverRoutes, practiceRoutes);
  for (const routes of all) api.use(routes(parts));
  api.use(() => {
    throw Refusal.of('thing.unknown', 'address');
  });
  app.use('/api', api);
  if (web !== undefined && existsSync(join(web, 'index.html'))) serveWeb(app, web);
  app.use(errorHandler(log));
  return app;
}

function serveWeb(app: Express, web: string): void {
  // Names with a hash in them never change their content.
  const forever = { immutable: true, maxAge: YEAR, index: false };
  app.use('/_expo', staticFiles(join(web, '_expo'), forever));
  app.use('/assets', express.static(join(web, 'assets'), forever));
  app.use('/fonts', express.static(join(web, 'fonts'), { maxAge: YEAR, index: false }));
  app.use(staticFiles(web, { index: false }));
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(web, 'index.html'));
  });
}
