import { createHash } from 'node:crypto';
import { createWriteStream, renameSync, statSync, writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { finished } from 'node:stream/promises';
import { parentPort, workerData } from 'node:worker_threads';
import archiver from 'archiver';
import { readerOf, type FormatId, type FormatLeft, type PackageFile } from '@ipsonomo/core/api';
import { formatOf, type Material, type Written } from '@ipsonomo/handover';
import { openDatabase } from '../store/database';
import { Refusal } from '../store/refusal';
import { Store } from '../store/store';
import { materialFrom } from './material-from';
import type { PackageNews, PackageOrder } from './protocol';

// Writes one package and ends: files are made one format after the other, and only the whole stands under its name.

// This thread gives way to those that answer: to the kernel a thread is somebody of its own (Linux, setpriority(2), NOTES).
setPriority(constants.priority.PRIORITY_LOW);

const order = workerData as PackageOrder;
const say = (news: PackageNews) => parentPort?.postMessage(news);

/** Of what a format left out so many are told at once; the list itself goes into the package. */
const MOST_TOLD = 200;
/** The beginning of a text, to look at before it is taken. */
const MOST_SHOWN = 20_000;

interface Made {
  readonly format: FormatId;
  readonly written: Written;
}

async function main(): Promise<void> {
  const store = new Store(openDatabase(order.database.url, order.database.schema));
  const material = await materialFrom(store, order);
  const made: Made[] = [];
  for (const format of order.wish.formats) {
    say({ state: 'writing', done: made.length, doing: format });
    const writer = formatOf(format);
    if (!writer) throw Refusal.of('thing.unknown', 'format');
    made.push({ format, written: await writer.write(material) });
  }
  const name = await write(made, material);
  const files = made.flatMap(({ format, written }) =>
    written.files.map((file): PackageFile => ({
      format,
      name: file.name,
      bytes: sizeOf(file.content),
    })),
  );
  say({
    ...{ state: 'ready', name, files, text: textOf(made) },
    bytes: statSync(order.path).size,
    left: made.flatMap(leftOf),
  });
}

const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? Buffer.from(content) : content;
const sizeOf = (content: string | Uint8Array): number => bytesOf(content).length;

const leftOf = ({ format, written: { left } }: Made): readonly FormatLeft[] =>
  left.length === 0 ? [] : [{ format, count: left.length, some: left.slice(0, MOST_TOLD) }];

function textOf(made: readonly Made[]): string | null {
  const [file, ...others] = made.flatMap(({ written }) => written.files);
  return file && others.length === 0 && typeof file.content === 'string'
    ? file.content.slice(0, MOST_SHOWN)
    : null;
}

/** Packed already: once more costs time and saves nothing. */
const IS_PACKED = /\.(pdf|png|xlsx)$/;

/** One file as it is, several in a ZIP. @returns its name */
async function write(made: readonly Made[], material: Material): Promise<string> {
  const part = `${order.path}.part`;
  const [only, ...others] = made.flatMap(({ written }) => written.files);
  if (only && others.length === 0) {
    writeFileSync(part, bytesOf(only.content));
    renameSync(part, order.path);
    return only.name;
  }
  const zip = archiver('zip', { zlib: { level: 6 } });
  const out = createWriteStream(part);
  zip.pipe(out);
  const date = new Date(material.at);
  for (const { name, content } of entriesOf(made))
    zip.append(content, { name, date, store: IS_PACKED.test(name) });
  await zip.finalize();
  await finished(out);
  renameSync(part, order.path);
  return `${material.job} hand-over revision ${material.revision}.zip`.replace(
    /[/\\:*?"<>|]+/g,
    '-',
  );
}

interface Entry {
  readonly name: string;
  readonly content: Buffer;
}

/** The files by their reader, what they left out, and the digest of each (FIPS 180-4, as sha256sum reads it). */
function entriesOf(made: readonly Made[]): readonly Entry[] {
  const entries: Entry[] = [];
  const taken = new Set<string>();
  for (const { format, written } of made) {
    const folder = readerOf(format);
    for (const { name, content } of written.files) {
      const base = written.files.length > 1 ? `${folder}/${format}/${name}` : `${folder}/${name}`;
      let full = base;
      for (let more = 2; taken.has(full.toLowerCase()); more += 1)
        full = base.replace(/(\.[^./]*)?$/, ` ${more}$1`);
      taken.add(full.toLowerCase());
      entries.push({ name: full, content: Buffer.from(bytesOf(content)) });
    }
  }
  const sums = entries.map(
    ({ name, content }) => `${createHash('sha256').update(content).digest('hex')}  ${name}`,
  );
  return [...entries, { name: 'SHA256SUMS', content: Buffer.from(`${sums.join('\n')}\n`) }];
}

void main()
  .catch((error: unknown) => {
    const [issue] = error instanceof Refusal ? error.issues : [];
    const why = error instanceof Error ? error.message : String(error);
    say({ state: 'failed', issue: issue ?? { code: 'package.fell', where: '', facts: { why } } });
  })
  .finally(() => setImmediate(() => process.exit(0)));
