import { createPrivateKey, createPublicKey, generateKeyPairSync, sign } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** What proofs of this installation are signed with. */
export interface InstallationKey {
  /** PEM (RFC 7468). */
  readonly publicKey: string;
  readonly sign: (bytes: Uint8Array) => Uint8Array;
}

const NAME = 'installation.key.pem';

/**
 * The Ed25519 key of this installation, made at its first use and read by its owner alone. It lies beside the captures,
 * and goes into backups with them: an installation that was restored signs as before.
 */
export function installationKey(folder: string): InstallationKey {
  const path = join(folder, NAME);
  if (!existsSync(path)) {
    mkdirSync(folder, { recursive: true });
    const { privateKey } = generateKeyPairSync('ed25519');
    // Whole or not at all: two who make one at once end with the same.
    const own = `${path}.${process.pid}.${Math.random().toString(36).slice(2)}`;
    writeFileSync(own, privateKey.export({ type: 'pkcs8', format: 'pem' }), { mode: 0o600 });
    if (!existsSync(path)) renameSync(own, path);
  }
  const privateKey = createPrivateKey(readFileSync(path));
  return {
    publicKey: createPublicKey(privateKey).export({ type: 'spki', format: 'pem' }).toString(),
    sign: (bytes) => new Uint8Array(sign(null, bytes, privateKey)),
  };
}
