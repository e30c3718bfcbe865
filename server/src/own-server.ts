import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import type { OwnServer } from './service/servers';

const FILE = 'server-id';
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/**
 * Which server this is, by its folder: where captures and journals lie. The first start gives it its number.
 * @param name what people call it; its machine's name where they say nothing
 */
export function ownServer(folder: string, name: string | undefined): OwnServer {
  const called = name?.trim() || hostname();
  const path = join(folder, FILE);
  const known = existsSync(path) ? readFileSync(path, 'utf8').trim() : '';
  if (UUID.test(known)) return { id: known, name: called };
  const id = randomUUID();
  mkdirSync(folder, { recursive: true });
  // Whole or not at all.
  writeFileSync(`${path}.part`, `${id}\n`, { mode: 0o600 });
  renameSync(`${path}.part`, path);
  return { id, name: called };
}
