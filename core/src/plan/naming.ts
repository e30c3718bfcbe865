import { formatIpv4, type Ipv4 } from '../net';
import {
  nameByPattern,
  parsePattern,
  toStationName,
  toVariable,
  type NamePattern,
  type PatternValues,
} from '../names';
import type { Kind } from './kind';
import { FIRST_SETTINGS, type Device, type Plan } from './model';

const FIRST_PATTERN = patternOf(FIRST_SETTINGS.namePattern);

function patternOf(text: string): NamePattern {
  const read = parsePattern(text);
  return read.ok ? read.value : { text: '', pieces: [{ kind: 'number', width: 1 }] };
}

/** The pattern of a plan's names; our own where the plan has none that can be read. */
export function namePatternOf(plan: Pick<Plan, 'settings'>): NamePattern {
  const read = parsePattern(plan.settings.namePattern);
  return read.ok ? read.value : FIRST_PATTERN;
}

type Named = Pick<Device, 'area' | 'cabinet' | 'position'>;

/** A host name for a device, made by the plan's pattern. @param address where it is known already */
export function proposedName(
  plan: Pick<Plan, 'settings'>,
  device: Named,
  kind: Pick<Kind, 'role' | 'stem'>,
  taken: ReadonlySet<string>,
  address?: Ipv4,
): string {
  const last = address === undefined ? '' : (formatIpv4(address).split('.')[3] ?? '');
  const values: PatternValues = {
    ...{ area: device.area, cabinet: device.cabinet, position: device.position },
    ...{ role: kind.role, stem: kind.stem, last, switch: last },
  };
  return nameByPattern(namePatternOf(plan), values, taken);
}

/** The station name of a device: as typed, or made from the host name. */
export const stationNameOf = (device: Device): string =>
  device.stationName ?? toStationName(device.name) ?? device.name;

/** The DHCP name of a device: as typed, or the host name. */
export const dhcpNameOf = (device: Device): string => device.dhcpName ?? device.name;

/** The variable name of a device: as typed, or made from the host name. */
export const variableOf = (device: Device): string =>
  device.variable ?? toVariable(device.name) ?? device.name;
