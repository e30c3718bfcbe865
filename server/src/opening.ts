import { rmSync } from 'node:fs';
import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import { toString as qrCode } from 'qrcode';
import { KEY_MARK, spokenKey } from '@ipsonomo/core/api';
import { noteMachine } from './common/machine';
import { noteAdapters } from '@ipsonomo/wire';

/** Bytes of a Unix socket's path (unix(7)). */
export const LONGEST_SOCKET = 107;
/** Only whoever owns the file may connect. */
const OWNER_ONLY = 0o177;

/** Opens a port, or the Unix socket of this path, which is its owner's alone from its first moment on. */
export function listen(
  server: Server,
  place: string | { readonly host: string; readonly port: number },
  ready?: () => void,
): void {
  if (typeof place !== 'string') {
    noteAdapters(server);
    server.listen(place, ready);
    return;
  }
  server.on('connection', noteMachine);
  // A socket that a killed server left behind would be in the way.
  rmSync(place, { force: true });
  const before = process.umask(OWNER_ONLY);
  server.listen({ path: place }, ready);
  process.umask(before);
}

const isLinkLocal = (address: string): boolean => address.startsWith('169.254.');

/**
 * Addresses that open this server and bring the key, those for other machines first. The key stands behind the #,
 * which no browser sends to anybody.
 */
export function addressesToOpen(place: {
  readonly host: string;
  readonly port: number;
  readonly key: string;
  readonly scheme: 'http' | 'https';
  /** Where people open it, if something stands in front. */
  readonly origin?: string | undefined;
}): readonly string[] {
  const { host, port, key, scheme, origin } = place;
  if (origin !== undefined) return [`${origin}/#${KEY_MARK}${key}`];
  const isAll = host === '0.0.0.0' || host === '::';
  const own = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(
      ({ family, internal, address }) => family === 'IPv4' && !internal && !isLinkLocal(address),
    )
    .map(({ address }) => address);
  const hosts = isAll ? [...own, '127.0.0.1'] : [host];
  return hosts.map(
    (one) => `${scheme}://${one.includes(':') ? `[${one}]` : one}:${port}/#${KEY_MARK}${key}`,
  );
}

const isOfThisMachine = (address: string): boolean => /\/\/(127\.|localhost|\[::1])/.test(address);

/** What a terminal shows of a key: the addresses, and for a phone the first of them as a QR code (ISO/IEC 18004). */
export async function invitation(addresses: readonly string[], key: string): Promise<string> {
  const others = addresses.filter((address) => !isOfThisMachine(address));
  const [forPhones] = others;
  return [
    'Ipsonomo is ready. Whoever opens it with this key is let in, for a day:',
    ...addresses.map(
      (address) => `  ${address}${isOfThisMachine(address) ? '   on this machine' : ''}`,
    ),
    forPhones === undefined
      ? 'It listens on this machine alone. HOST=0.0.0.0 lets phones in.'
      : await qrCode(forPhones, { type: 'utf8', errorCorrectionLevel: 'L' }),
    `The key, to type: ${spokenKey(key)}`,
  ].join('\n');
}
