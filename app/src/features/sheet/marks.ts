import { type Plan, WAY_WORDS } from '@ipsonomo/core/plan';
import type { ColumnId, SheetRow } from '@ipsonomo/core/sheet';
import type { Severity, Snag } from '@ipsonomo/core/snags';

/** Which cells something speaks against: by row and column. */
export interface Marks {
  readonly cells: ReadonlyMap<string, Severity>;
  readonly rows: ReadonlyMap<string, Severity>;
}

export const cellKey = (row: string, column: string): string => `${row}|${column}`;

/** Fields of devices and interfaces that have a column of another name. */
const COLUMN_OF: Readonly<Record<string, ColumnId>> = {
  subnetId: 'subnet',
  kindId: 'kind',
  controllerId: 'controller',
};

const worse = (a: Severity | undefined, b: Severity): Severity =>
  a === 'wrong' || b === 'wrong' ? 'wrong' : a === 'doubtful' || b === 'doubtful' ? 'doubtful' : b;

export function marksOf(rows: readonly SheetRow[], snags: readonly Snag[]): Marks {
  const cells = new Map<string, Severity>();
  const marked = new Map<string, Severity>();
  if (snags.length === 0) return { cells, rows: marked };
  const ofDevice = new Map<string, string[]>();
  for (const { id, device } of rows) {
    const list = ofDevice.get(device.id);
    if (list) list.push(id);
    else ofDevice.set(device.id, [id]);
  }
  for (const { type, id, also, field, severity } of snags) {
    if (type !== 'interface' && type !== 'device') continue;
    const column = COLUMN_OF[field ?? ''] ?? field ?? '';
    for (const thing of [id, ...also])
      for (const row of ofDevice.get(thing) ?? [thing]) {
        const key = cellKey(row, column);
        cells.set(key, worse(cells.get(key), severity));
        marked.set(row, worse(marked.get(row), severity));
      }
  }
  return { cells, rows: marked };
}

/** What a column offers while one types. */
export function choicesOf(plan: Plan, column: string): readonly string[] {
  if (column === 'way') return Object.values(WAY_WORDS);
  if (column === 'subnet') return plan.subnets.map((one) => one.name);
  if (column === 'controller') return controllersOf(plan);
  return [];
}

/** Those that are somebody's controller first, then the rest. */
function controllersOf(plan: Plan): readonly string[] {
  const ids = new Set(plan.devices.map((one) => one.controllerId));
  const [first, rest] = [true, false].map((is) =>
    plan.devices.filter((one) => ids.has(one.id) === is),
  );
  return [...(first ?? []), ...(rest ?? [])].map((one) => one.title);
}
