import { randomUUID } from 'node:crypto';
import { closeSync, existsSync, openSync, readFileSync, readSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { writePlanFile, type PlanFile } from '@ipsonomo/core/formats';
import {
  HeardBook,
  stationOfEntry,
  stationsAgainst,
  strangersIn,
  takeFound,
  type HeardStation,
  type StationFinding,
} from '@ipsonomo/core/heard';
import { knownEdits, readKnown, type KnownEntry } from '@ipsonomo/core/known';
import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { applyEdits, firstDoc, planOf, type Edit, type PlanDoc } from '@ipsonomo/core/plan';
import { columnsOfList, type ColumnId } from '@ipsonomo/core/sheet';
import { isCapture } from '@ipsonomo/core/wire';
import { FOUND_MARKS, IMPORT_TOLD } from '@ipsonomo/language';
import { decodeText } from '../common/decode-text';
import { keptOf } from '../lists/kept';
import { readCsv } from '../lists/read-csv';
import type { ListTable } from '../lists/table';
import { listDevices } from '../service/list-answers';
import { framesOfFile, withCapture } from './capture';
import { option, refuseInput, type Output } from './output';
import { readPlanAt } from './plan';

/**
 * What others give, brought into a plan: a capture, leases or reservations, what a machine's tools print, or a list of
 * devices. Every difference is a line of standard output; only `--out` writes, and what is planned is never changed by
 * what was found.
 */
export async function importInto(inputs: readonly string[], output: Output): Promise<boolean> {
  const [into, withoutInto] = option(inputs, '--into');
  const [out, [path = '']] = option(withoutInto, '--out');
  const before = into === undefined ? newPlan(path) : readPlanAt(into, output);
  const edits = before && (await editsOf(path, before.doc, output));
  if (!before || !edits) return false;
  const outcome = applyEdits(before.doc, edits);
  if (!outcome.ok) throw new Error('what was made of the file does not fit the plan');
  const { doc } = outcome.value;
  const count = doc.device.size - before.doc.device.size;
  output.tell(IMPORT_TOLD.outcome({ devices: count, edits: edits.length }));
  if (out === undefined) output.tell(IMPORT_TOLD.nothingWritten);
  else writeFileSync(out, writePlanFile({ ...before, doc }));
  return true;
}

const newPlan = (path: string): PlanFile => ({
  ...{ name: basename(path).replace(/\.[^.]*$/, ''), doc: firstDoc(), papers: new Map() },
});

/** By what the file is, whatever it is called. */
async function editsOf(
  path: string,
  doc: PlanDoc,
  output: Output,
): Promise<readonly Edit[] | undefined> {
  if (!existsSync(path)) return void refuseInput(output, { code: 'file.missing', where: path });
  // A capture may be larger than memory: it is read piece by piece.
  if (isCapture(beginningOf(path))) return heardEdits(path, doc, output);
  const bytes = new Uint8Array(readFileSync(path));
  const name = basename(path);
  const plan = planOf(doc);
  const text = decodeText(bytes);
  const known = isZip(bytes) ? undefined : readKnown(text);
  // A list of devices has addresses and MACs in its lines too, and says by its headings what else they are.
  const isLoose = known?.ok && ['neighbours', 'alive'].includes(known.value.kind);
  const asFound = (entries: readonly KnownEntry[]) =>
    foundEdits(entries.map(stationOfEntry), name, doc, output);
  if (known?.ok && !isLoose) return asFound(known.value.entries);
  const list = isZip(bytes)
    ? await (await import('../lists/read-xlsx')).readXlsx(name, bytes, () => undefined)
    : readCsv(name, bytes);
  const table = list.ok
    ? list.value.find(({ headings }) => isList(columnsOfList(plan, headings)))
    : undefined;
  if (table) return listEdits(table, doc, output);
  if (known?.ok) return asFound(known.value.entries);
  const issue = list.ok ? undefined : list.error;
  return void refuseInput(output, issue ?? { code: 'known.nothing', where: name });
}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

function beginningOf(path: string): Uint8Array {
  const file = openSync(path, 'r');
  const bytes = new Uint8Array(4);
  readSync(file, bytes);
  closeSync(file);
  return bytes;
}

function heardEdits(path: string, doc: PlanDoc, output: Output): readonly Edit[] | undefined {
  const book = new HeardBook();
  const isWhole = withCapture(path, output, () => {
    for (const record of framesOfFile(path)) book.take(record);
  });
  // A capture that ends in the middle of a frame was told so, and what stands before that is there.
  if (!isWhole && book.frames === 0) return undefined;
  return foundEdits(book.stations(), basename(path), doc, output);
}

function foundEdits(
  stations: readonly HeardStation[],
  source: string,
  doc: PlanDoc,
  output: Output,
): readonly Edit[] {
  const plan = planOf(doc);
  const findings = stationsAgainst(plan, stations);
  for (const finding of findings) output.print(lineOf(finding));
  const taken = takeFound(plan, strangersIn(findings), {
    ...{ source, now: Date.now(), idOf: () => randomUUID(), words: FOUND_MARKS },
  });
  return [...knownEdits(doc, findings), ...taken.edits];
}

const lineOf = ({ verdict, entry, planned }: StationFinding) => ({
  verdict,
  address: entry.address === undefined ? null : formatIpv4(entry.address),
  mac: entry.mac === undefined ? null : formatMac(entry.mac),
  name: entry.name,
  planned: planned
    ? { device: planned.device.title, address: formatIpv4(planned.at.address) }
    : null,
});

/** Hardly a heading says what is below it where it is no list of devices. */
const isList = (columns: readonly (ColumnId | null)[]): boolean =>
  columns.filter((one) => one !== null).length >= 2;

function listEdits(table: ListTable, doc: PlanDoc, output: Output): readonly Edit[] {
  const columns = columnsOfList(planOf(doc), table.headings);
  const [subnet, ...others] = doc.subnet.keys();
  const taking = {
    ...{ sheet: 0, columns, update: { takesOut: false } },
    defaults: {
      kindId: 'other-device',
      ...(subnet !== undefined && others.length === 0 ? { subnetId: subnet } : {}),
    },
  };
  const about = { jobId: '', list: keptOf([table]), taking, now: Date.now() };
  const { edits, bad, update } = listDevices(about, doc);
  for (const change of update?.changes ?? []) output.print(change);
  for (const { line, column, issue } of bad) {
    output.print({ line, column, code: issue.code });
    refuseInput(output, issue);
  }
  return edits;
}
