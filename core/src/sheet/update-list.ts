import { formatIpv4, formatMac, parseIpv4, parseMac } from '../net';
import { dhcpNameOf, stationNameOf, type Edit, type Plan, type PlanDoc } from '../plan';
import { editsOfCells, type Cell } from './cells';
import { columnOf, rowsOf, type ColumnId, type SheetRow } from './columns';
import type { BadRowCell, ListRow } from './rows';

// A list that comes again, held against what was taken from it before.

/** A cell that a line has otherwise than the plan. */
export interface CellUpdate {
  readonly column: ColumnId;
  readonly from: string;
  readonly to: string;
}

/** A device that a line changes. */
export interface RowUpdate {
  /** The line's place in the list, from 0. */
  readonly row: number;
  readonly title: string;
  readonly cells: readonly CellUpdate[];
}

export interface ListUpdate {
  /** Places of lines that are nobody's yet: they are new. */
  readonly added: readonly number[];
  readonly changed: readonly RowUpdate[];
  /** How many lines say what the plan says. */
  readonly same: number;
  /** Devices that no line is of. */
  readonly gone: readonly { readonly id: string; readonly title: string }[];
  readonly bad: readonly BadRowCell[];
  /** Of the changed ones. */
  readonly edits: readonly Edit[];
}

/**
 * R-LIST-UPDATE: whose a line is tells its MAC, else its host, station or DHCP name, else what people call it, else its
 * address; each device is one line's at most. Only what a line says is held against the plan: a column that is missing,
 * or a cell that is empty, changes nothing.
 */
export function updateOfList(plan: Plan, doc: PlanDoc, list: readonly ListRow[]): ListUpdate {
  const rows = rowsOf(plan);
  const own = matchLines(rows, list);
  const taken = new Set(own.flatMap((row) => (row ? [row.device.id] : [])));
  const cells = own.flatMap((row, at) => (row ? cellsOf(row, list[at] ?? {}, plan) : []));
  const { edits, bad } = editsOfCells(plan, doc, new Map(rows.map((row) => [row.id, row])), cells);
  const lineOf = new Map(own.flatMap((row, at) => (row ? [[row.id, at] as const] : [])));
  const isBad = new Set(bad.map(({ row, column }) => `${row} ${column}`));
  const changed = own.flatMap((row, at): readonly RowUpdate[] => {
    if (!row) return [];
    const own = cells.filter(
      (cell) => cell.row === row.id && !isBad.has(`${cell.row} ${cell.column}`),
    );
    const updates = own.map(({ column, text }) => ({
      ...{ column, from: columnOf(column).text(row, plan), to: text },
    }));
    return updates.length === 0 ? [] : [{ row: at, title: row.device.title, cells: updates }];
  });
  return {
    added: own.flatMap((row, at) => (row ? [] : [at])),
    changed,
    same: own.filter((row) => row !== undefined).length - changed.length,
    gone: plan.devices.filter(({ id }) => !taken.has(id)).map(({ id, title }) => ({ id, title })),
    bad: bad.map(({ row, column, text, issue }) => ({
      row: lineOf.get(row) ?? 0,
      column,
      text,
      issue,
    })),
    edits,
  };
}

/** What a line says otherwise than the plan, as the plan would say it. */
function cellsOf(row: SheetRow, line: ListRow, plan: Plan): readonly Cell[] {
  return (Object.entries(line) as [ColumnId, string][]).flatMap(([id, text]): readonly Cell[] => {
    const column = columnOf(id);
    const typed = text.trim();
    if (typed === '' || column.isListed || typed === column.text(row, plan)) return [];
    const read = column.read(typed, plan, row);
    // The same said in another way: capitals of a MAC, a mask as a length, a kind by its order number.
    return read.ok && isSaid(row, read.value) ? [] : [{ row: row.id, column: id, text: typed }];
  });
}

type Change = Parameters<typeof Object.entries>[0];

/** Every field of a change is what the line's device and interface have already. */
function isSaid(
  { device, at }: SheetRow,
  change: { readonly device?: object; readonly at?: object },
): boolean {
  const has = (thing: object | undefined, fields: Change | undefined): boolean =>
    Object.entries(fields ?? {}).every(
      ([field, to]) =>
        field === 'isNameTyped' ||
        textOf(field, (thing as Record<string, unknown> | undefined)?.[field]) === (to ?? ''),
    );
  return has(device, change.device) && has(at, change.at);
}

/** As a plan file writes it: addresses and MACs are numbers here. */
function textOf(field: string, value: unknown): unknown {
  if (typeof value !== 'number') return value ?? '';
  return field === 'mac' ? formatMac(value as never) : formatIpv4(value as never);
}

/** The line of the sheet that each line of the list is of. */
function matchLines(
  rows: readonly SheetRow[],
  list: readonly ListRow[],
): readonly (SheetRow | undefined)[] {
  const own: (SheetRow | undefined)[] = list.map(() => undefined);
  const taken = new Set<SheetRow>();
  for (const [keysOfRow, keyOfLine] of KEYS) {
    const byKey = new Map<string, SheetRow>();
    for (const row of rows)
      for (const key of keysOfRow(row)) if (key !== '' && !byKey.has(key)) byKey.set(key, row);
    list.forEach((line, at) => {
      if (own[at]) return;
      const key = keyOfLine(line);
      const row = key === '' ? undefined : byKey.get(key);
      if (!row || taken.has(row)) return;
      own[at] = row;
      taken.add(row);
    });
  }
  return own;
}

const small = (text: string | undefined): string => (text ?? '').trim().toLowerCase();

/** By what a line is known, the surest first. */
const KEYS: readonly (readonly [
  (row: SheetRow) => readonly string[],
  (line: ListRow) => string,
])[] = [
  [({ at }) => (at?.mac === undefined ? [] : [formatMac(at.mac)]), ({ mac = '' }) => macOf(mac)],
  [({ device }) => [small(device.name)], ({ name }) => small(name)],
  [({ device }) => [small(stationNameOf(device))], ({ stationName }) => small(stationName)],
  [({ device }) => [small(dhcpNameOf(device))], ({ dhcpName }) => small(dhcpName)],
  [({ device }) => [small(device.title)], ({ title }) => small(title)],
  [({ at }) => (at ? [formatIpv4(at.address)] : []), ({ address = '' }) => addressOf(address)],
];

const macOf = (text: string): string => {
  const read = parseMac(text.trim());
  return read.ok ? formatMac(read.value) : '';
};
const addressOf = (text: string): string => {
  const read = parseIpv4(text.trim());
  return read.ok ? formatIpv4(read.value) : '';
};
