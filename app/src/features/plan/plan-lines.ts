import type { DeviceInfo } from '@ipsonomo/core/api';
import type { Subnet } from '@ipsonomo/core/plan';

/** A line of the plan on a phone. */
export type PlanLine =
  | { readonly kind: 'subnet'; readonly subnet: Subnet }
  | { readonly kind: 'device'; readonly device: DeviceInfo }
  /** There are more of its devices. */
  | { readonly kind: 'more'; readonly subnet: Subnet; readonly count: number }
  | { readonly kind: 'empty'; readonly subnet: Subnet };

/** How many devices a subnet shows at first; a hall has hundreds. */
const FIRST = 12;
/** How many more are shown at a touch. */
export const MORE = 50;

const NONE: readonly DeviceInfo[] = [];

/**
 * All subnets with their devices, line by line: a subnet that comes into sight as a whole takes a phone a tenth of a second.
 * @param more how many devices a subnet shows beyond the first
 */
export function planLines(
  subnets: readonly Subnet[],
  devices: readonly DeviceInfo[],
  more: ReadonlyMap<string, number>,
): readonly PlanLine[] {
  const bySubnet = new Map<string | undefined, DeviceInfo[]>();
  for (const device of devices) {
    const subnetId = device.interfaces[0]?.subnetId;
    const own = bySubnet.get(subnetId);
    if (own) own.push(device);
    else bySubnet.set(subnetId, [device]);
  }
  return subnets.flatMap((subnet): readonly PlanLine[] => {
    const own = bySubnet.get(subnet.id) ?? NONE;
    const shown = own.slice(0, FIRST + (more.get(subnet.id) ?? 0));
    return [
      { kind: 'subnet', subnet },
      ...shown.map((device) => ({ kind: 'device', device }) as const),
      ...(own.length > shown.length ? [{ kind: 'more', subnet, count: own.length } as const] : []),
      ...(own.length === 0 ? [{ kind: 'empty', subnet } as const] : []),
    ];
  });
}

export const keyOfLine = (line: PlanLine): string =>
  line.kind === 'device' ? line.device.id : `${line.kind} ${line.subnet.id}`;
