import { findKind, type Device, type Kind, type Plan, type Subnet } from '../plan';

/** What the rules of one device may look at. Whatever they read is in `leanedOn`. */
export interface DeviceScope {
  readonly device: Device;
  readonly kind: Kind | undefined;
  readonly subnet: (id: string) => Subnet | undefined;
  readonly controller: Device | undefined;
  readonly controllerKind: Kind | undefined;
  readonly other: (id: string) => Device | undefined;
  readonly plan: Plan;
}

/** What a device's place among others depends on: as long as it is the same, so are its group keys. */
export const placedBy = (
  device: Device,
  subnets: ReadonlyMap<string, Subnet>,
): readonly unknown[] => [device, ...device.interfaces.map((at) => subnets.get(at.subnetId))];

/** The things a device's snags depend on: as long as they are the same objects, so are the snags. */
export const leanedOn = (
  plan: Plan,
  device: Device,
  devices: ReadonlyMap<string, Device>,
): readonly unknown[] => [
  plan.kinds,
  device.controllerId === undefined ? undefined : devices.get(device.controllerId),
  ...device.references.map((one) => one.deviceId && devices.get(one.deviceId)),
];

export function scopeOf(
  plan: Plan,
  device: Device,
  devices: ReadonlyMap<string, Device>,
  subnets: ReadonlyMap<string, Subnet>,
): DeviceScope {
  const controller =
    device.controllerId === undefined ? undefined : devices.get(device.controllerId);
  return {
    device,
    kind: findKind(plan, device.kindId),
    subnet: (id) => subnets.get(id),
    controller,
    controllerKind: controller && findKind(plan, controller.kindId),
    other: (id) => devices.get(id),
    plan,
  };
}
