import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { createGzip } from 'node:zlib';
import {
  docBefore,
  planOf,
  readEdits,
  THING_TYPES,
  type Edit,
  type JsonObject,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { installationKey } from '../packages/installation-key';
import { CARRIED_ROWS } from '../store/bundle-store';
import type { Store } from '../store/store';
import { FORMAT, VERSION, type End, type Head, type Line } from './format';
import { Refusal } from '../store/refusal';

/** What is written, and by whom. */
export interface Writing {
  readonly store: Store;
  readonly own: { readonly id: string; readonly name: string };
  /** Where the key of this installation lies. */
  readonly captures: string;
}

/** All of a job for another installation, packed as it goes. */
export function writeBundle(writing: Writing, jobId: string): AsyncIterable<Uint8Array> {
  const packed = createGzip();
  const lines = Readable.from(sealed(writing, jobId));
  // What goes wrong while it is written ends it, so that whoever reads is told.
  lines.on('error', (error) => packed.destroy(error));
  return lines.pipe(packed);
}

async function* sealed(writing: Writing, jobId: string): AsyncGenerator<string> {
  const hash = createHash('sha256');
  let count = 0;
  for await (const line of lines(writing, jobId)) {
    const text = `${JSON.stringify(line)}\n`;
    hash.update(text);
    count += 1;
    yield text;
  }
  const sha256 = hash.digest('hex');
  const { sign, publicKey } = installationKey(writing.captures);
  const signature = Buffer.from(sign(Buffer.from(sha256))).toString('base64');
  yield `${JSON.stringify({ end: count, sha256, signature, publicKey } satisfies End)}\n`;
}

async function* lines({ store, own }: Writing, jobId: string): AsyncGenerator<Head | Line> {
  const [{ id, name }, { doc }, history] = await Promise.all([
    store.job(jobId),
    store.planState(jobId),
    store.bundles.history(jobId),
  ]);
  const base = baseOf(doc, history.own);
  yield {
    ...{ format: FORMAT, version: VERSION, job: { id, name }, server: own, at: Date.now() },
    base: THING_TYPES.flatMap((type) =>
      Array.from(base[type].values(), (thing) => [type, thing] as const),
    ),
  };
  for (const revision of history.all) yield { revision };
  for (const table of CARRIED_ROWS)
    for (const row of await store.bundles.rows(jobId, table)) yield { table, row };
  for await (const link of store.bundles.links(jobId)) yield { link };
  for (const paper of new Set(
    planOf(doc).kinds.flatMap((kind) => kind.papers.map((one) => one.id)),
  )) {
    const bytes = await store.paper(jobId, paper);
    if (bytes) yield { paper, bytes: bytes.toString('base64') };
  }
  for (const photo of await store.photos.ids(jobId)) {
    const bytes = await store.photos.find(jobId, photo);
    if (bytes) yield { photo, bytes: bytes.toString('base64') };
  }
}

/** The plan before the first of these revisions. */
export function baseOf(doc: PlanDoc, own: readonly (readonly object[])[]): PlanDoc {
  const edits = own.flatMap(editsOf);
  const base = docBefore(doc, edits);
  if (!base) throw new Error('the revisions of this plan do not lead to it');
  return base;
}

/** In their shape: the database keeps the fields of an object in an order of its own. Refuses what is none. */
export function editsOf(edits: readonly object[]): readonly Edit[] {
  const read = readEdits(edits as readonly JsonObject[]);
  if (!read.ok) throw new Refusal(read.error);
  return read.value;
}
