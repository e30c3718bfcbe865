import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet, { strictTransportSecurity, type HelmetOptions } from 'helmet';
import { errorHandler } from './http/errors';
import { apiOf } from './http/api';
import { notThroughLiveAdapter, underOwnName } from './http/guard';
import type { Services } from './http/services';
import { staticFiles } from './http/static-files';

export interface AppParts extends Services {
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
  const { wires, log, web } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.use(notThroughLiveAdapter(wires));
  app.use(underOwnName);
  app.use(helmet(HEADERS));
  // With an authority of its own it is opened both ways: who does not trust it yet has to get there.
  if (!parts.authority) app.use(encryptedOnly);
  // A compressed event stream would be held back until it is long enough.
  app.use(compression({ filter: (request) => !request.path.endsWith('/events') }));
  app.use('/api', apiOf(parts, log));
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
