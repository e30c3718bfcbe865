import { NAME_WORDS } from '@ipsonomo/language/kept';
import { statSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import type { FormatId, FormatLeft, PackageFile } from '@ipsonomo/core/api';
import { formatOf, type WrittenFile, type Written } from '@ipsonomo/handover';
import { openDatabase } from '../store/database';
import { Refusal } from '../store/refusal';
import { Store } from '../store/store';
import { materialFrom } from './material-from';
import { bytesOf, PackageOut } from './package-out';
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

async function main(): Promise<void> {
  const store = new Store(openDatabase(order.database));
  const material = await materialFrom(store, order);
  const out = new PackageOut(order.path, material.at);
  const files: PackageFile[] = [];
  const left: FormatLeft[] = [];
  let text: string | null = null;
  for (const [done, format] of order.wish.formats.entries()) {
    say({ state: 'writing', done, doing: format });
    const writer = formatOf(format);
    if (!writer) throw Refusal.of('thing.unknown', 'format');
    const written = await writer.write(material);
    files.push(...written.files.map((file) => fileOf(format, file)));
    left.push(...leftOf(format, written.left));
    text = files.length === 1 ? shownOf(written.files[0]?.content) : null;
    await out.add(format, written.files);
  }
  const name = await out.end(
    NAME_WORDS.handOverFile({ job: material.job, revision: material.revision }).replace(
      /[/\\:*?"<>|]+/g,
      '-',
    ),
  );
  if (name === undefined) throw Refusal.of('package.nothing', '');
  say({ state: 'ready', name, files, text, bytes: statSync(order.path).size, left });
}

const fileOf = (format: FormatId, { name, content }: WrittenFile): PackageFile => ({
  ...{ format, name, bytes: bytesOf(content).length },
});

const leftOf = (format: FormatId, left: Written['left']): readonly FormatLeft[] =>
  left.length === 0 ? [] : [{ format, count: left.length, some: left.slice(0, MOST_TOLD) }];

const shownOf = (content: string | Uint8Array | undefined): string | null =>
  typeof content === 'string' ? content.slice(0, MOST_SHOWN) : null;

void main()
  .catch((error: unknown) => {
    const [issue] = error instanceof Refusal ? error.issues : [];
    const why = error instanceof Error ? error.message : String(error);
    say({ state: 'failed', issue: issue ?? { code: 'package.fell', where: '', facts: { why } } });
  })
  .finally(() => setImmediate(() => process.exit(0)));
