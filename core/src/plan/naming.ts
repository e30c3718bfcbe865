import { formatIpv4, type Ipv4 } from '../net';
import {
  nameByPattern,
  parsePattern,
  toStationName,
  toVariable,
  type NamePattern,
  type PatternValues,
} from '../names';
import { nameBySwitches } from '../switches';
import type { Kind } from './kind';
import { FIRST_SETTINGS, type Device, type Plan } from './model';
import { isNamedOverLayer2 } from './words';

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

/** The DHCP names that a plan's devices go by. */
export const dhcpNamesOf = (plan: Pick<Plan, 'devices'>): Set<string> =>
  new Set(plan.devices.map(dhcpNameOf));

/**
 * A DHCP name that the switches of a kind can make and nobody goes by; undefined where its switches
 * make no names, or every one of them is taken.
 */
export function proposedSwitchName(
  kind: Pick<Kind, 'switches'>,
  taken: ReadonlySet<string>,
): string | undefined {
  for (const { act, from, to } of kind.switches?.meanings ?? []) {
    if (act.kind !== 'name') continue;
    // Switches at zero are how a device comes out of its box.
    for (let value = Math.max(1, from); value <= to; value += 1) {
      const name = nameBySwitches(act.pattern, value);
      if (!taken.has(name)) return name;
    }
  }
  return undefined;
}

/** The station name of a device: as typed, or made from the host name. */
export const stationNameOf = (device: Device): string =>
  device.stationName ?? toStationName(device.name) ?? device.name;

/** The DHCP name of a device: as typed, or the host name. */
export const dhcpNameOf = (device: Device): string => device.dhcpName ?? device.name;

/** Does whoever controls it look for it by its station name, and not by its host name or address? */
export const isFoundByStationName = ({
  way,
  protocol,
}: Pick<Device, 'way' | 'protocol'>): boolean => isNamedOverLayer2(way) || protocol === 'PROFINET';

/** The variable name of a device: as typed, or made from the host name. */
export const variableOf = (device: Device): string =>
  device.variable ?? toVariable(device.name) ?? device.name;
