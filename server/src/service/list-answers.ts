import { randomUUID } from 'node:crypto';
import type {
  BadListCell,
  ListLines,
  ListPreview,
  ListTaking,
  PreviewDevice,
} from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import {
  applyEdits,
  findKind,
  findSubnet,
  planOf,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { newRowsOf, type ListRow, type NewRows } from '@ipsonomo/core/sheet';
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
}

/** The edits that take every good line; what is wrong with the others. */
export function listDevices({ list, taking, now }: Taking, doc: PlanDoc): TakenList {
  const { rows = [], lines: places = [] } = tablesOf(list)[taking.sheet] ?? {};
  const lines = rows.map((cells): ListRow =>
    Object.fromEntries(
      taking.columns.flatMap((column, at) => (column ? [[column, cells[at] ?? '']] : [])),
    ),
  );
  const { bad, edits, unknownKinds } = newRowsOf(planOf(doc), lines, taking.defaults, now, () =>
    randomUUID(),
  );
  const placed = bad.map((one) => ({ ...one, line: places[one.row] ?? one.row + 1 }));
  return { bad: placed, edits, unknownKinds, count: lines.length };
}

/** What would become of a list. Nothing is changed. */
export function listPreview(question: Taking, doc: PlanDoc): ListPreview {
  const { bad, edits, unknownKinds, count } = listDevices(question, doc);
  const before = planOf(doc);
  const outcome = applyEdits(doc, edits);
  const after = outcome.ok ? planOf(outcome.value.doc) : before;
  return {
    count,
    badLines: new Set(bad.map((one) => one.row)).size,
    bad: bad.slice(0, MOST_BAD),
    unknownKinds: unknownKinds.slice(0, MOST_BAD),
    devices: after.devices
      .slice(before.devices.length, before.devices.length + MOST_SHOWN)
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
