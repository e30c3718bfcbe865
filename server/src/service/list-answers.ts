import { randomUUID } from 'node:crypto';
import type {
  BadListCell,
  ListLines,
  ListPreview,
  ListTaking,
  PreviewDevice,
  UpdatePreview,
} from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  applyEdits,
  editsOfTakingOut,
  findKind,
  findSubnet,
  planOf,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import {
  newRowsOf,
  updateOfList,
  type ListRow,
  type ListUpdate,
  type NewRows,
} from '@ipsonomo/core/sheet';
import { countWrong, snagsOf } from '@ipsonomo/core/snags';
import { tablesOf } from '../lists/kept';

interface About {
  readonly jobId: string;
  /** The tables of a list, packed (`lists/kept.ts`). */
  readonly list: Uint8Array;
}

/** What may be asked of a list that was read. */
export type ListQuestion =
  | (About & { readonly kind: 'list-lines'; readonly sheet: number })
  | (Taking & { readonly kind: 'list-preview' | 'list-devices' });

/** Which columns of a sheet are which fields. */
export interface Taking extends About {
  readonly taking: ListTaking;
  readonly now: number;
}

/** More lines than a controller's project has devices are left out; the count tells of them. */
const MOST_LINES = 5000;
const MOST_SHOWN = 100;
const MOST_BAD = 500;

/** One sheet as it stands in the file. */
export function listLines({
  list,
  sheet,
}: Extract<ListQuestion, { kind: 'list-lines' }>): ListLines {
  const { headings = [], rows = [] } = tablesOf(list)[sheet] ?? {};
  return { lines: [headings, ...rows.slice(0, MOST_LINES)], count: rows.length };
}

interface TakenList extends Pick<NewRows, 'unknownKinds' | 'edits'> {
  readonly bad: readonly BadListCell[];
  readonly count: number;
  readonly update: UpdatePreview | null;
}

/** The edits that take every good line; what is wrong with the others. */
export function listDevices({ list, taking, now }: Taking, doc: PlanDoc): TakenList {
  const { rows = [], lines: places = [] } = tablesOf(list)[taking.sheet] ?? {};
  const lines = rows.map((cells): ListRow =>
    Object.fromEntries(
      taking.columns.flatMap((column, at) => (column ? [[column, cells[at] ?? '']] : [])),
    ),
  );
  const plan = planOf(doc);
  const lineAt = (row: number): number => places[row] ?? row + 1;
  const update = taking.update && updateOfList(plan, doc, lines);
  const added = update?.added ?? lines.map((_line, at) => at);
  const fresh = newRowsOf(
    plan,
    added.map((at) => lines[at] ?? {}),
    taking.defaults,
    now,
    () => randomUUID(),
  );
  const bad = [
    ...(update?.bad ?? []),
    ...fresh.bad.map((one) => ({ ...one, row: added[one.row] ?? one.row })),
  ].sort((one, other) => one.row - other.row);
  const leaving = taking.update?.takesOut ? (update?.gone ?? []) : [];
  return {
    bad: bad.map((one) => ({ ...one, line: lineAt(one.row) })),
    unknownKinds: fresh.unknownKinds,
    edits: [
      ...(update?.edits ?? []),
      ...editsOfTakingOut(doc, new Set(leaving.map(({ id }) => id))),
      ...fresh.edits,
    ],
    count: lines.length,
    update: update ? updatePreview(update, lineAt) : null,
  };
}

const updatePreview = (
  { added, changed, gone, same }: ListUpdate,
  lineAt: (row: number) => number,
): UpdatePreview => ({
  ...{ added: added.length, same, changed: changed.length, gone: gone.length },
  changes: changed.slice(0, MOST_SHOWN).map((one) => ({ ...one, line: lineAt(one.row) })),
  leaving: gone.slice(0, MOST_SHOWN).map(({ title }) => title),
});

/** What would become of a list. Nothing is changed. */
export function listPreview(question: Taking, doc: PlanDoc): ListPreview {
  const { bad, edits, unknownKinds, count, update } = listDevices(question, doc);
  const before = planOf(doc);
  const outcome = applyEdits(doc, edits);
  const after = outcome.ok ? planOf(outcome.value.doc) : before;
  const were = new Set(before.devices.map(({ id }) => id));
  return {
    ...{ count, update },
    badLines: new Set(bad.map((one) => one.row)).size,
    bad: bad.slice(0, MOST_BAD),
    unknownKinds: unknownKinds.slice(0, MOST_BAD),
    devices: after.devices
      .filter(({ id }) => !were.has(id))
      .slice(0, MOST_SHOWN)
      .map((device) => previewOf(after, device)),
    wrong: countWrong(snagsOf(after)) - countWrong(snagsOf(before)),
  };
}

function previewOf(plan: Plan, device: Plan['devices'][number]): PreviewDevice {
  const [at] = device.interfaces;
  return {
    ...{ title: device.title, name: device.name },
    address: at ? formatIpv4(at.address) : '',
    subnet: (at && findSubnet(plan, at.subnetId)?.name) ?? '',
    kind: findKind(plan, device.kindId)?.name ?? device.kindId,
  };
}
