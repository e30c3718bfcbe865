import { readFileSync } from 'node:fs';
import { createServer, type RequestListener, type Server, type ServerOptions } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import { createSecureContext } from 'node:tls';
import { SERVER_WORDS } from '@ipsonomo/language/terminal';

/** A certificate with what vouches for it, and its private key; PEM. */
export interface Certificate {
  readonly cert: Buffer;
  readonly key: Buffer;
}

/** @returns a sentence where the two files are not a certificate and its key */
export function readCertificate(certFile: string, keyFile: string): Certificate | string {
  let file = certFile;
  try {
    const cert = readFileSync(certFile);
    file = keyFile;
    const key = readFileSync(keyFile);
    file = `${certFile} with ${keyFile}`;
    createSecureContext({ cert, key });
    return { cert, key };
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return SERVER_WORDS.certificateUnread({ file, why });
  }
}

/** A web server, with TLS (1.2 or newer) where there is a certificate. */
export const webServer = (
  certificate: Certificate | undefined,
  options: ServerOptions,
  handler: RequestListener,
): Server =>
  certificate === undefined
    ? createServer(options, handler)
    : createTlsServer({ ...options, ...certificate, minVersion: 'TLSv1.2' }, handler);

/** How an address begins that leads to it. */
export const schemeOf = (certificate: Certificate | undefined): 'http' | 'https' =>
  certificate === undefined ? 'http' : 'https';
