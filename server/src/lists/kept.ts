import { deserialize, serialize } from 'node:v8';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import type { ListTable } from './table';

/** The quickest level: a list's cells are much alike. */
const LEVEL = 1;

/**
 * The tables of a list that was read, packed: a million cells are some hundred megabytes as texts, and a list lies
 * there for as long as somebody thinks over its columns.
 */
export const keptOf = (tables: readonly ListTable[]): Uint8Array =>
  // A copy of its own: what is handed over may not be a part of a pool of buffers.
  new Uint8Array(deflateRawSync(serialize(tables), { level: LEVEL }));

export const tablesOf = (kept: Uint8Array): readonly ListTable[] =>
  deserialize(inflateRawSync(kept)) as readonly ListTable[];
