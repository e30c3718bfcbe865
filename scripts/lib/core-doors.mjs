// Every room of core by its own door, as its package has them: for bundlers, which leave packages out.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const ROOT = join(import.meta.dirname, '../..');

/** @returns for esbuild: `@ipsonomo/core/net` → the file, absolute */
export const CORE_DOORS = Object.fromEntries(
  Object.entries(JSON.parse(readFileSync(join(ROOT, 'core/package.json'), 'utf8')).exports).map(
    ([room, file]) => [`@ipsonomo/core/${room.slice(2)}`, join(ROOT, 'core', file)],
  ),
);
