import { speaksEnip, type Kind, type Way } from '../plan';

/** What a device is asked to count as proven. */
export const CHECK_NAMES = ['arp', 'ping', 'name', 'identity', 'services'] as const;
export type CheckName = (typeof CHECK_NAMES)[number];

export interface RequiredCheck {
  readonly check: CheckName;
  /** How old its passing may be and still count. */
  readonly mostHours: number;
}

/** Where a device is can change at every power-up; what it is, only when somebody swaps it. */
const WHERE_HOURS = 7 * 24;
const WHAT_HOURS = 30 * 24;

const MODBUS_TCP = 502;

/** Such devices can be asked over Modbus/TCP who they are. */
export const speaksModbus = ({ services }: Kind): boolean =>
  services.some(({ protocol, port }) => protocol === 'tcp' && port === MODBUS_TCP);

/** Ways in which a device has its name over layer 2. */
const NAMED: readonly Way[] = ['layer2-name', 'controller'];

/**
 * R-PROVEN: the checks a device has to pass, by its kind and its way, with their greatest age (common practice, no
 * source). A kind known not to answer ping is not asked for one, a kind that is not known only for its address.
 */
export function requiredChecks(kind: Kind | undefined, way: Way): readonly RequiredCheck[] {
  const where = (check: CheckName) => ({ check, mostHours: WHERE_HOURS });
  const what = (check: CheckName) => ({ check, mostHours: WHAT_HOURS });
  return [
    where('arp'),
    ...((kind?.answersPing ?? true) ? [where('ping')] : []),
    ...(NAMED.includes(way) ? [what('name')] : []),
    // Identification over Modbus is optional in the protocol, so none is asked of such a kind.
    ...(kind && (speaksEnip(kind) || (kind.station && NAMED.includes(way)))
      ? [what('identity')]
      : []),
    ...(kind && kind.services.length > 0 ? [what('services')] : []),
  ];
}
