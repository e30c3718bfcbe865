import { formatIpv4, maskOf, type Ipv4 } from '../net';
import {
  findKind,
  findSubnet,
  gatewayOf,
  instancesOf,
  isFoundByStationName,
  maskLengthOf,
  measureEnd,
  stationNameOf,
  type Device,
  type CheckFacts,
  type FoundValue,
  type Interface,
  type Plan,
} from '../plan';
import { differencesIn, isOtherRevision, modulesText } from '../proof';

/** A value that stands in the plan, in the controller and in the device. */
export type EnteredValue =
  | (
      | 'name'
      | 'address'
      | 'mask'
      | 'gateway'
      | 'revision'
      | 'in'
      | 'out'
      | 'interval'
      | 'modules'
      | 'connection'
    )
  | ('in-instance' | 'out-instance' | 'config-instance');

/** One value three ways; empty where that one does not say it. */
export interface ThreeWays {
  readonly value: EnteredValue;
  readonly planned: string;
  readonly entered: string;
  readonly found: string;
  /** `alone`: only one of them says it, so there is nothing to compare. */
  readonly verdict: 'same' | 'differs' | 'alone';
}

/** What a run found of it. */
type LastCheck = { readonly kind: string; readonly facts: CheckFacts } | undefined;

const text = (value: number | string | undefined): string =>
  value === undefined ? '' : String(value);

/**
 * R-THREE-WAYS: each value of a connection as planned, as entered in the controller and as found. Sizes are compared in
 * bytes seen by the controller, whatever unit and viewpoint each end states them in; names letter by letter; of a
 * revision a newer minor one counts as the same.
 */
export function threeWays(
  plan: Plan,
  device: Device,
  at: Interface,
  check: LastCheck,
): readonly ThreeWays[] {
  const { entered, connection } = device;
  const kind = findKind(plan, device.kindId);
  const own = connection && measureEnd(connection.device);
  const other = connection && measureEnd(connection.controller);
  const facts: CheckFacts = check?.facts ?? {};
  const said = (value: FoundValue) => text(facts[value]);
  const isThere = check !== undefined && check.kind !== 'no-answer' && facts.what !== 'mac';
  const cells: readonly Cells[] = [
    ['name', plannedName(device), entered?.name ?? '', text(facts.name)],
    [
      ...(['address', formatIpv4(at.address)] as const),
      entered?.address === undefined ? '' : formatIpv4(entered.address),
      isThere ? text(facts.asked) : '',
    ],
    ...netCells(plan, at, entered),
    [
      ...(['revision', kind?.revision ?? ''] as const),
      entered?.revision || (connection?.controller.revision ?? ''),
      text(facts.revision),
    ],
    ['in', text(own?.inBytes), text(other?.inBytes), said('in')],
    ['out', text(own?.outBytes), text(other?.outBytes), said('out')],
    ...instanceCells(connection, said),
    [
      ...(['interval', text(connection?.device.intervalMillis)] as const),
      ...([text(connection?.controller.intervalMillis), ''] as const),
    ],
    ['modules', modulesText(device.modules), '', said('modules')],
    ['connection', '', '', said('connection')],
  ];
  return cells.flatMap(([value, planned, typed, found]) =>
    planned === '' && typed === '' && found === ''
      ? []
      : [
          {
            value,
            planned,
            entered: typed,
            found,
            verdict: verdictOf(value, [planned, typed, found], facts),
          },
        ],
  );
}

type Cells = readonly [EnteredValue, planned: string, entered: string, found: string];

/** What else of the network a project says; the plan's is shown only beside what was entered. */
function netCells(plan: Plan, at: Interface, entered: Device['entered']): readonly Cells[] {
  const subnet = findSubnet(plan, at.subnetId);
  if (!subnet) return [];
  const planned = [
    ['mask', maskOf(maskLengthOf(at, subnet)), entered?.mask],
    ['gateway', gatewayOf(at, subnet), entered?.gateway],
  ] as const;
  return planned.flatMap(([value, own, typed]): readonly Cells[] =>
    typed === undefined
      ? []
      : [[value, own === undefined ? 'none' : formatIpv4(own), addressText(typed), '']],
  );
}

/** 0.0.0.0 is how a project writes that there is none. */
const addressText = (address: Ipv4): string => (address === 0 ? 'none' : formatIpv4(address));

/** Instances as the controller sees them, whatever viewpoint each end states them from. */
function instanceCells(
  connection: Device['connection'],
  said: (value: FoundValue) => string,
): readonly Cells[] {
  const own = connection && instancesOf(connection.device);
  const other = connection && instancesOf(connection.controller);
  const rows = [
    ['in-instance', 'inInstance'],
    ['out-instance', 'outInstance'],
    ['config-instance', 'configInstance'],
  ] as const;
  return rows.map(([value, field]) => [
    ...([value, text(own?.[field])] as const),
    ...([text(other?.[field]), said(value)] as const),
  ]);
}

/** The name its controller looks for it by. */
export const plannedName = (device: Device): string =>
  isFoundByStationName(device) ? stationNameOf(device) : device.name;

function verdictOf(
  value: EnteredValue,
  cells: readonly string[],
  facts: CheckFacts,
): ThreeWays['verdict'] {
  const said = cells.filter((cell) => cell !== '');
  const [first, ...others] = said;
  if (first === undefined || others.length === 0) return 'alone';
  // A module is told by its number, and may have another name there.
  if (value === 'modules')
    return differencesIn(facts).some(({ what }) => what === 'module') ? 'differs' : 'same';
  const isSame = (other: string) =>
    value === 'revision' ? !isOtherRevision(first, other) : first === other;
  return others.every(isSame) ? 'same' : 'differs';
}
