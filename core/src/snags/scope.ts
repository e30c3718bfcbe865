import type { Device, Kind, Subnet } from '../plan';

/** What the rules of one device may look at; the book looks again when any of it is another. */
export interface DeviceScope {
  readonly device: Device;
  readonly kind: Kind | undefined;
  readonly subnet: (id: string) => Subnet | undefined;
  readonly controller: Device | undefined;
  readonly controllerKind: Kind | undefined;
  /** Whether a router of the plan translates between two realms. */
  readonly isTranslated: (a: string, b: string) => boolean;
  /** Only for devices that `leansOn` names. */
  readonly other: (id: string) => Device | undefined;
}

/** The other devices that a device's snags depend on, by their ids. */
export function leansOn({ controllerId, references }: Device): readonly string[] {
  if (references.length === 0) return controllerId === undefined ? NOBODY : [controllerId];
  const all = [controllerId, ...references.map((one) => one.deviceId)];
  return all.filter((one) => one !== undefined);
}

const NOBODY: readonly string[] = [];
