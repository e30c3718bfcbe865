import { createHash } from 'node:crypto';

/** SHA-256 (FIPS 180-4), in hex: by what files that never change are called. */
export const sha256Of = (bytes: Uint8Array): string =>
  createHash('sha256').update(bytes).digest('hex');
