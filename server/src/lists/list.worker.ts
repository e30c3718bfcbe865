import { randomUUID } from 'node:crypto';
import { parentPort, workerData } from 'node:worker_threads';
import { docFromView, newRowsOf, planOf, type ListRow, type SheetSummary } from '@ipsonomo/core';
import type { ListAsk, ListFile, ListNews, Numbered } from './protocol';
import { readCsv } from './read-csv';
import { readXlsx } from './read-xlsx';
import type { ListTable } from './table';

// One list in a thread of its own: a workbook that unpacks to gigabytes ends this thread and nothing
// else.

const SAMPLE = 5;
let tables: readonly ListTable[] = [];

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
  const done = isZip(bytes) ? await readXlsx(name, bytes, progress) : readCsv(name, bytes);
  if (!done.ok) return tell({ kind: 'failed', issue: done.error });
  tables = done.value;
  tell({ kind: 'ready', sheets: tables.map(summaryOf) });
}

const summaryOf = ({ name, headings, rows }: ListTable): SheetSummary => ({
  ...{ name, headings, count: rows.length, sample: rows.slice(0, SAMPLE) },
});

type Asked<K extends ListAsk['kind']> = Extract<ListAsk, { kind: K }> & Numbered;

/** More lines than a controller's project has devices are left out; the count tells of them. */
const MOST_LINES = 5000;

function lines({ ask, sheet }: Asked<'lines'>): void {
  const { headings = [], rows = [] } = tables[sheet] ?? {};
  const all = [headings, ...rows.slice(0, MOST_LINES)];
  tell({ kind: 'lines', ask, lines: { lines: all, count: rows.length } });
}

function make({ ask, taking, things, now }: Asked<'make'>): void {
  const table = tables[taking.sheet];
  const plan = planOf(docFromView({ things }));
  const list = (table?.rows ?? []).map((cells): ListRow =>
    Object.fromEntries(
      taking.columns.flatMap((column, at) => (column ? [[column, cells[at] ?? '']] : [])),
    ),
  );
  const { bad, edits } = newRowsOf(plan, list, taking.defaults, now, () => randomUUID());
  tell({ kind: 'made', ask, made: { bad, edits }, count: list.length });
}

parentPort?.on('message', (asked: ListAsk & Numbered) =>
  asked.kind === 'make' ? make(asked) : lines(asked),
);
void read(workerData as ListFile);
