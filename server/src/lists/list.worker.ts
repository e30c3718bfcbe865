import { parentPort, workerData } from 'node:worker_threads';
import type { SheetSummary } from '@ipsonomo/core/api';
import { keptOf } from './kept';
import type { ListFile, ListNews } from './protocol';
import { readCsv } from './read-csv';
import type { ListTable } from './table';

// One list in a thread of its own, which ends once it is read: a workbook that unpacks to gigabytes ends this thread
// and nothing else, and one that was read leaves nothing but its cells.

const SAMPLE = 5;

const tell = (news: ListNews): void => parentPort?.postMessage(news);

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;
/** Workbooks of before 2007 are compound files. */
const isOld = (bytes: Uint8Array): boolean =>
  [0xd0, 0xcf, 0x11, 0xe0].every((byte, at) => bytes[at] === byte);

async function read({ name, bytes }: ListFile): Promise<void> {
  if (isOld(bytes)) return tell({ kind: 'failed', issue: { code: 'list.old', where: name } });
  let told = 0;
  const progress = (share: number) => {
    if (share - told < 0.05 && share < 1) return;
    told = share;
    tell({ kind: 'progress', share });
  };
  // The library of workbooks takes longer to load than a list of commas to read.
  const done = isZip(bytes)
    ? await (await import('./read-xlsx')).readXlsx(name, bytes, progress)
    : readCsv(name, bytes);
  if (!done.ok) return tell({ kind: 'failed', issue: done.error });
  tell({ kind: 'ready', sheets: done.value.map(summaryOf), kept: keptOf(done.value) });
}

const summaryOf = ({ name, headings, rows }: ListTable): SheetSummary => ({
  ...{ name, headings, count: rows.length, sample: rows.slice(0, SAMPLE) },
});

void read(workerData as ListFile);
