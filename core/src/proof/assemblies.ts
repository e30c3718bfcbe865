import { instancesOf, measureEnd, type Device } from '../plan';
import type { FoundDifference } from './differences';

/** What an assembly carries, seen by the controller. */
export type AssemblyRole = 'in' | 'out' | 'config';

/** Where the data of a connection are in a device (EtherNet/IP assembly object). */
export interface PlannedAssembly {
  readonly role: AssemblyRole;
  readonly instance: number;
  /** Undefined where the plan does not say. */
  readonly bytes: number | undefined;
}

/** What the device says of one that was asked for. */
export interface AssemblyFound {
  readonly role: AssemblyRole;
  readonly instance: number;
  readonly isThere: boolean;
  /** Undefined where it does not tell. */
  readonly bytes: number | undefined;
}

/** The assemblies a device has by its own end of the connection. */
export function plannedAssemblies({
  connection,
}: Pick<Device, 'connection'>): readonly PlannedAssembly[] {
  if (connection?.protocol !== 'EtherNet/IP') return [];
  const { inBytes, outBytes } = measureEnd(connection.device);
  const { inInstance, outInstance, configInstance } = instancesOf(connection.device);
  const all = [
    { role: 'in' as const, instance: inInstance, bytes: inBytes },
    { role: 'out' as const, instance: outInstance, bytes: outBytes },
    { role: 'config' as const, instance: configInstance, bytes: undefined },
  ];
  return all.flatMap(({ instance, ...one }) =>
    instance === undefined ? [] : { ...one, instance },
  );
}

/** What the plan has of the roles that such a text names: `in 2, out 4`, sizes or instances. */
export const assembliesAt = (
  planned: readonly PlannedAssembly[],
  of: 'bytes' | 'instance',
  text: string,
): string =>
  text
    .split(', ')
    .flatMap((part) => {
      const [role = ''] = part.split(' ');
      const one = planned.find((each) => each.role === role);
      return one?.[of] === undefined ? [] : [`${role} ${one[of]}`];
    })
    .join(', ');

/** @example sizesText([{ role: 'in', bytes: 32 }]) // 'in 32' */
const sizesText = (
  sizes: readonly { readonly role: AssemblyRole; readonly bytes: number | undefined }[],
): string => sizes.map(({ role, bytes }) => `${role} ${bytes}`).join(', ');

/** Reads such a text back, bytes by role. */
export const readSizesText = (text: string): Partial<Record<AssemblyRole, number>> =>
  Object.fromEntries(
    text.split(', ').flatMap((part) => {
      const [, role, bytes] = /^(in|out) (\d+)$/.exec(part) ?? [];
      return role === undefined ? [] : [[role, Number(bytes)]];
    }),
  );

/** R-SIZES: instances that are not there, and sizes in bytes that are other than the plan has for the device's end. */
export function assemblyDifferences(
  planned: readonly PlannedAssembly[],
  found: readonly AssemblyFound[],
): readonly FoundDifference[] {
  const pairs = planned.flatMap((one) => {
    const has = found.find(({ role }) => role === one.role);
    return has ? [{ one, has }] : [];
  });
  const missing = pairs.filter(({ has }) => !has.isThere).map(({ one }) => one);
  const other = pairs.filter(
    ({ one, has }) => one.bytes !== undefined && has.bytes !== undefined && one.bytes !== has.bytes,
  );
  const names = missing.map(({ role, instance }) => `${role} ${instance}`).join(', ');
  return [
    ...(missing.length > 0 ? [{ what: 'instance' as const, expected: names, found: 'none' }] : []),
    ...(other.length > 0
      ? [
          {
            what: 'size' as const,
            expected: sizesText(other.map(({ one }) => one)),
            found: sizesText(other.map(({ has }) => has)),
          },
        ]
      : []),
  ];
}
