import { formatIpv4 } from '@ipsonomo/core/net';
import {
  findDevice,
  findKind,
  instancesOf,
  measureEnd,
  stationNameOf,
  variableOf,
  type ConnectionEnd,
  type Device,
  type PlannedInterface,
} from '@ipsonomo/core/plan';
import { registerFrom0 } from '@ipsonomo/core/snags';
import { rackPathView } from '@ipsonomo/language';
import { COUNTING_WORDS } from '@ipsonomo/language/hand-over-files';
import type { Material } from '../../format';

export interface ControllerRows {
  /** What the controller is called; the ids of devices without one come to none. */
  readonly title: string;
  readonly rows: readonly ConnectionRow[];
}

/** The cells of one connection, and the interface that it goes to. */
export interface ConnectionRow {
  readonly one: PlannedInterface;
  readonly cells: readonly string[];
}

const said = (value: number | undefined): string => (value === undefined ? '' : String(value));
/** Words of 16 bits; a byte left over is told as half a word. */
const words = (bytes: number | undefined): string => (bytes === undefined ? '' : String(bytes / 2));

/** R-CONNECTION-SHEET: what has to be typed into each controller, a line for each connection, as the controller sees it. */
export function controllerRows(material: Material): readonly ControllerRows[] {
  const byController = new Map<string, ConnectionRow[]>();
  for (const one of material.chosen) {
    const { controllerId } = one.device;
    // A device with several interfaces has one connection, which goes to its first.
    if (controllerId === undefined || one.device.interfaces[0] !== one.at) continue;
    const rows = byController.get(controllerId) ?? [];
    byController.set(controllerId, [...rows, { one, cells: cellsOf(material, one, controllerId) }]);
  }
  return [...byController].map(([id, rows]) => ({
    title: findDevice(material.plan, id)?.title ?? id,
    rows,
  }));
}

function cellsOf(
  { plan }: Material,
  { device, at }: PlannedInterface,
  controllerId: string,
): readonly string[] {
  const end = device.connection?.device;
  const { inBytes, outBytes } = end ? measureEnd(end) : { inBytes: undefined, outBytes: undefined };
  const instances = end ? instancesOf(end) : undefined;
  const path = rackPathView(plan, controllerId, at.id);
  return [
    ...[device.title, stationNameOf(device), variableOf(device), formatIpv4(at.address)],
    findKind(plan, device.kindId)?.revision ?? '',
    device.connection?.protocol ?? device.protocol ?? '',
    ...[said(instances?.inInstance), said(instances?.outInstance), said(instances?.configInstance)],
    said(end?.configBytes),
    ...[said(inBytes), words(inBytes), said(outBytes), words(outBytes)],
    said(end?.intervalMillis),
    ...lineCells(device),
    end ? registerText(end) : '',
    path ? [path.from, ...path.hops.map(({ step }) => step)].join(' > ') : '',
    path ? `${path.numbers} (${path.bytes})` : '',
  ];
}

/** TCP port and unit of what is on a serial line behind it. */
const lineCells = ({ lines }: Device): readonly [string, string] => [
  lines.flatMap(({ tcpPort }) => tcpPort ?? []).join('; '),
  lines.flatMap(({ units }) => units.map(({ unit, title }) => `${unit} ${title}`)).join('; '),
];

/** With how it is counted, and counted from 0 as it goes over the wire. */
const registerText = ({ register, counting }: ConnectionEnd): string =>
  register === undefined
    ? ''
    : `${register} (${COUNTING_WORDS[counting]}; ${COUNTING_WORDS.wire} ${registerFrom0(register, counting)})`;
