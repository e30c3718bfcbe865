import { formatIpv4, parseIpv4, type Issue } from '../net';
import {
  changeOf,
  findDoc,
  findKind,
  namePatternOf,
  proposedName,
  type Edit,
  type Interface,
  type Json,
  type Plan,
  type PlanDoc,
} from '../plan';
import { columnOf, type CellChange, type ColumnId, type SheetRow } from './columns';

/** A text for a cell. */
export interface Cell {
  readonly row: string;
  readonly column: ColumnId;
  readonly text: string;
}

/** A cell whose text cannot be taken, with the reason. */
export interface BadCell extends Cell {
  readonly issue: Issue;
}

interface CellEdits {
  readonly edits: readonly Edit[];
  readonly bad: readonly BadCell[];
}

type Fields = Readonly<Record<string, Json>>;

/**
 * What typing, pasting or filling these cells changes. A cell that cannot be taken is named and
 * changes nothing; a derived host name follows the cells it is made of.
 */
export function editsOfCells(
  plan: Plan,
  doc: PlanDoc,
  rows: ReadonlyMap<string, SheetRow>,
  cells: readonly Cell[],
): CellEdits {
  const bad: BadCell[] = [];
  const ofDevice = new Map<string, Fields>();
  const ofInterface = new Map<string, Fields>();
  for (const cell of cells) {
    const row = rows.get(cell.row);
    if (!row) continue;
    const read = columnOf(cell.column).read(cell.text, plan, row);
    const change: CellChange = read.ok ? read.value : {};
    if (!read.ok) bad.push({ ...cell, issue: read.error });
    else if (change.at && !row.at)
      bad.push({ ...cell, issue: { code: 'cell.noInterface', where: row.device.title } });
    merge(ofDevice, row.device.id, change.device);
    if (row.at) merge(ofInterface, row.at.id, change.at);
  }
  followPattern(plan, rows, ofDevice, ofInterface);
  const edits = [
    ...[...ofDevice].flatMap(([id, fields]) => changed(doc, 'device', id, fields)),
    ...[...ofInterface].flatMap(([id, fields]) => changed(doc, 'interface', id, fields)),
  ];
  return { edits, bad };
}

function merge(all: Map<string, Fields>, id: string, fields: Fields | undefined): void {
  if (fields) all.set(id, { ...all.get(id), ...fields });
}

function changed(
  doc: PlanDoc,
  type: 'device' | 'interface',
  id: string,
  fields: Fields,
): readonly Edit[] {
  const thing = findDoc(doc, type, id);
  return thing ? changeOf(type, thing, fields) : [];
}

const addressText = (at: Interface | undefined): string => (at ? formatIpv4(at.address) : '');

/** The fields that a part of the name pattern is made of. */
const MADE_OF: Readonly<Record<string, string>> = {
  area: 'area',
  cabinet: 'cabinet',
  position: 'position',
  role: 'kindId',
  stem: 'kindId',
  last: 'address',
  switch: 'address',
};

/** A derived host name follows its pattern; one that was typed stays as it was typed. */
function followPattern(
  plan: Plan,
  rows: ReadonlyMap<string, SheetRow>,
  ofDevice: Map<string, Fields>,
  ofInterface: ReadonlyMap<string, Fields>,
): void {
  const parts = new Set(
    namePatternOf(plan).pieces.flatMap((piece) =>
      piece.kind === 'part' ? [MADE_OF[piece.part] ?? ''] : [],
    ),
  );
  let taken: Set<string> | undefined;
  for (const { device, at } of new Map(
    [...rows.values()].map((row) => [row.device.id, row]),
  ).values()) {
    const own = ofDevice.get(device.id) ?? {};
    const first = (at && ofInterface.get(at.id)) ?? {};
    if (device.isNameTyped || own['name'] !== undefined) continue;
    const isMoved = first['address'] !== undefined && first['address'] !== addressText(at);
    const isOther = Object.entries(own).some(
      ([field, to]) => parts.has(field) && to !== device[field as keyof typeof device],
    );
    if (!isOther && !(isMoved && parts.has('address'))) continue;
    const after = { ...device, ...own } as typeof device;
    const kind = findKind(plan, after.kindId);
    if (!kind) continue;
    taken ??= new Set(plan.devices.map((one) => one.name));
    taken.delete(device.name);
    const address = parseIpv4(String(first['address'] ?? ''));
    const name = proposedName(plan, after, kind, taken, address.ok ? address.value : at?.address);
    taken.add(name);
    if (name !== device.name) ofDevice.set(device.id, { ...own, name });
  }
}
