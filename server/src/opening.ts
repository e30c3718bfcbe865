import { rmSync } from 'node:fs';
import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import { toString as qrCode } from 'qrcode';
import { KEY_MARK, spokenKey } from '@ipsonomo/core/api';
import { SERVER_WORDS } from '@ipsonomo/language/terminal';
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
  /** Without one it is for those who have an account. */
  readonly key?: string;
  readonly scheme: 'http' | 'https';
  /** Where people open it, if something stands in front. */
  readonly origin?: string | undefined;
}): readonly string[] {
  const { host, port, key, scheme, origin } = place;
  const end = key === undefined ? '/' : `/#${KEY_MARK}${key}`;
  if (origin !== undefined) return [`${origin}${end}`];
  const isAll = host === '0.0.0.0' || host === '::';
  const own = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(
      ({ family, internal, address }) => family === 'IPv4' && !internal && !isLinkLocal(address),
    )
    .map(({ address }) => address);
  const hosts = isAll ? [...own, '127.0.0.1'] : [host];
  return hosts.map((one) => `${scheme}://${one.includes(':') ? `[${one}]` : one}:${port}${end}`);
}

const isOfThisMachine = (address: string): boolean => /\/\/(127\.|localhost|\[::1])/.test(address);

/** What a key that is shown is for. */
const OPENINGS = {
  demo: SERVER_WORDS.demoOpens,
  first: SERVER_WORDS.firstOpens,
  key: SERVER_WORDS.keyOpens,
} as const;

const linesOf = (addresses: readonly string[]): readonly string[] =>
  addresses.map(
    (address) =>
      `  ${address}${isOfThisMachine(address) ? `   ${SERVER_WORDS.onThisMachine}` : ''}`,
  );

/** What a terminal shows of a key: the addresses, and for a phone the first of them as a QR code (ISO/IEC 18004). */
export async function invitation(
  addresses: readonly string[],
  key: string,
  what: keyof typeof OPENINGS,
): Promise<string> {
  const others = addresses.filter((address) => !isOfThisMachine(address));
  const [forPhones] = others;
  return [
    OPENINGS[what],
    ...linesOf(addresses),
    forPhones === undefined
      ? SERVER_WORDS.onThisMachineAlone
      : await qrCode(forPhones, { type: 'utf8', errorCorrectionLevel: 'L' }),
    SERVER_WORDS.theKeyToType({ key: spokenKey(key) }),
  ].join('\n');
}

/** Where those who have an account open it. */
export const readyAt = (addresses: readonly string[]): string =>
  [SERVER_WORDS.signInAt, ...linesOf(addresses), SERVER_WORDS.aKeyForSomebodyNew].join('\n');
